using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>Asking for changes of records, and deciding on them, as the screens do.</summary>
public static class Asking
{
    /// <summary>The employment of somebody who reports to Callum, has started, and is paid.</summary>
    public static async Task<string> ReportOfCallumAsync(TestDatabase database) =>
        (string)
            (
                await database.AskAsync(
                    """
                    select r.employment_id::text from records_now r join employments e on e.id = r.employment_id
                      join employments m on m.id = r.manager_id join users u on u.person_id = m.person_id
                      join record_values v on v.owner_id = e.id and v.field = 'pay_rate' and upper_inf(v.known) and upper_inf(v.effective)
                    where u.email = 'callum@halyard.example' and e.start < '2027-01-01' and e."end" is null order by 1 limit 1
                    """
                )
            )!;

    /// <summary>Asks with the version of the record that is there now, and answers whatever comes of it.</summary>
    public static async Task<HttpResponseMessage> AskAsync(
        this Caller caller,
        string employment,
        object changes,
        string? from = null,
        string? why = "A test",
        Guid? key = null
    ) =>
        await caller.SendAsync(
            "POST",
            $"/api/records/{employment}/requests",
            new
            {
                changes,
                from,
                why,
            },
            (await caller.GetAsync($"/api/records/{employment}")).Text("version"),
            key: key
        );

    /// <summary>Asks, which goes well, and answers the request.</summary>
    public static async Task<JsonNode> AskedAsync(this Caller caller, string employment, object changes, string? from = null)
    {
        using var asked = await caller.AskAsync(employment, changes, from);
        asked.IsSuccessStatusCode.ShouldBeTrue(await asked.Content.ReadAsStringAsync());
        return await asked.JsonAsync();
    }

    /// <summary>What waits for somebody's word.</summary>
    public static async Task<JsonNode[]> ToDecideAsync(this Caller caller) =>
        [.. (await caller.GetAsync("/api/requests"))["toDecide"]!.AsArray().Select(r => r!)];

    /// <summary>What somebody asked for.</summary>
    public static async Task<JsonNode[]> AskedForAsync(this Caller caller) => [.. (await caller.GetAsync("/api/requests"))["asked"]!.AsArray().Select(r => r!)];

    /// <summary>Says a word on a request as it was seen, and answers whatever comes of it.</summary>
    public static Task<HttpResponseMessage> DecideAsync(this Caller caller, JsonNode request, string word, string? comment = null, Guid? key = null) =>
        caller.SendAsync("POST", $"/api/requests/{request.Text("id")}/{word}", new { comment }, request.Text("version"), key: key);

    /// <summary>Agrees to the one request that waits for somebody.</summary>
    public static async Task AgreeToTheOneAsync(this Caller caller)
    {
        using var agreed = await caller.DecideAsync((await caller.ToDecideAsync()).ShouldHaveSingleItem(), "agree");
        agreed.IsSuccessStatusCode.ShouldBeTrue(await agreed.Content.ReadAsStringAsync());
    }

    /// <summary>Makes a configuration of fields live that asks by some approvals.</summary>
    /// <param name="approvals">The approvals as JSON, with commas between.</param>
    public static async Task ApproveByAsync(Caller caller, string approvals, Caller? second = null)
    {
        var fields = await caller.GetAsync("/api/fields");
        var configuration = fields["configuration"]!.DeepClone().AsObject();
        configuration["approvals"] = JsonNode.Parse($"[{approvals}]");
        using var saved = await caller.SendAsync("PUT", "/api/fields/draft", new { configuration }, ifMatch: fields["draft"]?.Text("version"));
        saved.IsSuccessStatusCode.ShouldBeTrue(await saved.Content.ReadAsStringAsync());
        var version = (await saved.JsonAsync()).Text("version");
        using var published = await caller.SendAsync("POST", "/api/fields/draft/publish", new { why = "A test", despite = true }, ifMatch: version);
        published.IsSuccessStatusCode.ShouldBeTrue(await published.Content.ReadAsStringAsync());
        if (second is null)
            return;
        version = (await second.GetAsync("/api/fields"))["draft"]!.Text("version");
        using var agreed = await second.SendAsync("POST", "/api/fields/draft/publish", new { why = "A test", despite = true }, ifMatch: version);
        agreed.IsSuccessStatusCode.ShouldBeTrue(await agreed.Content.ReadAsStringAsync());
    }
}
