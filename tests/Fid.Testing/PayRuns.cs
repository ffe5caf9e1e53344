using System.Net;
using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>Runs of pay, and somebody who is new in one.</summary>
public static class PayRuns
{
    /// <summary>A first day of a fortnight in which newcomers of the crews start.</summary>
    public const string Fortnight = "2027-03-08";

    /// <summary>Opens a deckhand who starts with the fortnight, full-time, with an account.</summary>
    /// <returns>Their employment.</returns>
    public static async Task<string> HandAsync(Caller orla, string family, string? account = "IE64IRCE92050112345678", string start = Fortnight)
    {
        var hire = Records.NewHire("Rhys", family);
        hire["start"] = start;
        hire["backDated"] = true;
        hire["typed"]!["weekly_hours"] = 37.5;
        if (account is not null)
            hire["typed"]!["bank_account"] = account;
        using var opened = await orla.SendAsync("POST", "/api/hires", hire.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
        return (await opened.JsonAsync()).Text("employmentId");
    }

    /// <summary>The run of a pay group that holds a day.</summary>
    public static Task<JsonNode> RunAsync(Caller caller, string group = "crew", string day = Fortnight) =>
        caller.GetAsync($"/api/pay-check?group={group}&on={day}");

    /// <summary>The line of somebody in a run of the crews; null where nothing of their pay is new in it.</summary>
    public static async Task<JsonNode?> FindLineAsync(Caller caller, string employment, string day = Fortnight) =>
        (await RunAsync(caller, day: day))["lines"]!.AsArray().SingleOrDefault(l => l!.Text("employmentId") == employment);

    /// <summary>The same of somebody who has one.</summary>
    public static async Task<JsonNode> LineAsync(Caller caller, string employment, string day = Fortnight) =>
        (await FindLineAsync(caller, employment, day)).ShouldNotBeNull();
}
