using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts.People;
using Fid.Data.People;
using Fid.Testing;
using NodaTime;
using NpgsqlTypes;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The first and the last day: both belong to what they bound, everywhere but in the database's ranges.</summary>
public class DateBoundaryTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly LocalDate First = new(2027, 3, 1),
        Last = new(2027, 3, 31);

    [Fact]
    public void A_range_ends_on_the_same_day_whichever_way_the_database_writes_it()
    {
        EffectiveRange.FromDatabase(new NpgsqlRange<LocalDate>(First, true, false, Last.PlusDays(1), false, false)).ShouldBe((First, Last));
        EffectiveRange.FromDatabase(new NpgsqlRange<LocalDate>(First, true, false, Last, true, false)).ShouldBe((First, Last));
        EffectiveRange.FromDatabase(EffectiveRange.ToDatabase(First, Last)).ShouldBe((First, Last));
        EffectiveRange.FromDatabase(EffectiveRange.ToDatabase(First, First)).ShouldBe((First, First));
        EffectiveRange.FromDatabase(EffectiveRange.ToDatabase(First, null)).ShouldBe((First, (LocalDate?)null));
    }

    [Theory]
    [InlineData("2027-03-01", true)]
    [InlineData("2027-02-28", false)]
    public void Somebody_may_leave_on_the_first_day_and_not_before_it(string end, bool fits) =>
        RecordRules
            .Misfits(new Dictionary<string, JsonElement?> { ["end_date"] = JsonElement.Parse($"\"{end}\"") }, First)
            .Select(p => p.Path)
            .ShouldBe(fits ? [] : ["/end_date"]);

    [Theory]
    [InlineData("2027-03-01", true)] // today
    [InlineData("2027-03-02", false)]
    public async Task Nobody_fails_to_come_before_the_first_day(string start, bool possible)
    {
        using var orla = await firm.As("orla");
        var opening = Records.NewHire(possible ? "Nora" : "Abel", possible ? "Show" : "Waitinger");
        opening["start"] = start;
        using var opened = await orla.SendAsync("POST", "/api/hires", opening.ToJsonString());
        using var outcome = await orla.SendAsync(
            "PUT",
            $"/api/hires/{(await opened.JsonAsync()).Text("id")}/outcome",
            new { outcome = "noShow", why = "Did not come" }
        );
        if (possible)
            outcome.IsSuccessStatusCode.ShouldBeTrue(await outcome.Content.ReadAsStringAsync());
        else
            (await outcome.ErrorsAsync()).ShouldBe([("/outcome", "too-early")]);
    }

    [Theory]
    [InlineData("2027-04-30", "Orla Dunmore")]
    [InlineData("2027-05-01", "Piet Haverkort")] // the new head's first day
    public async Task A_department_is_led_by_its_new_head_from_the_first_day_on(string start, string manager)
    {
        using var orla = await firm.As("orla");
        var heads = new JsonArray(
            new JsonObject { ["from"] = "2027-01-01", ["person"] = "1002" },
            new JsonObject { ["from"] = "2027-05-01", ["person"] = "1003" }
        );
        var body = new JsonObject
        {
            ["code"] = $"led-{start}",
            ["name"] = $"Led {start}",
            ["values"] = new JsonObject { ["heads"] = heads },
        };
        using var added = await orla.SendAsync("POST", "/api/lists/departments/entries", body.ToJsonString());
        added.IsSuccessStatusCode.ShouldBeTrue(await added.Content.ReadAsStringAsync());
        using var response = await orla.SendAsync(
            "POST",
            "/api/hires/preview",
            new
            {
                id = Guid.NewGuid(),
                template = "ticket-clerk",
                start,
                typed = new { department = $"led-{start}", site = "hallan" },
            }
        );
        (await response.JsonAsync())["values"]!.AsArray().Single(v => v!.Text("field") == "manager")!.Text("display").ShouldBe(manager);
    }
}
