using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Tasks that Fid does by itself: fields of the record that are set once they can be, all or none, and what is said where they cannot. The
/// firm's today is 1 March 2027.</summary>
public sealed class AutomaticTaskTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private string _hire = "",
        _record = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        var hire = await FirmFixture.HireAsync(_orla, "Brandt");
        (_hire, _record) = (hire.Text("id"), hire.Text("employmentId"));
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task What_can_be_set_is_set_by_Fid_and_the_task_is_done()
    {
        await MakeAutomaticAsync(("town", "'Corran'"), ("room", "given_name"));
        var task = await TaskAsync(t => t["done"] is not null);
        (task.Text("done"), task.Text("doneBy")).ShouldBe(("2027-03-01", "Fid"));
        task["automatic"]!["sets"]!.AsArray().Select(s => $"{s!["field"]} {s["formula"]}").ShouldBe(["town 'Corran'", "room given_name"]);
        var record = await _orla.GetAsync($"/api/records/{_record}");
        Records.Field(record, "town").Text("value").ShouldBe("Corran");
        Records.Field(record, "room").Text("value").ShouldBe(Records.Field(record, "given_name").Text("value"));
        // Who did it, and why, stands in the record's history.
        (await ChangesAsync()).ShouldBe(["Fid: Fit out"]);
        // It is done, and stays so whatever the record comes to say.
        await _orla.SaveAsync(_record, "town", "Hallan");
        await _firm.Database.AskAsync($"update hire_tasks set note = 'look again' where hire_id = '{_hire}' and key = 'kit'");
        await QuietAsync();
        Records.Field(await _orla.GetAsync($"/api/records/{_record}"), "town").Text("value").ShouldBe("Hallan");
    }

    [Fact]
    public async Task What_cannot_be_set_as_a_whole_is_not_set_at_all_and_says_why_until_the_record_changes()
    {
        await _orla.SaveAsync(_record, "room", null);
        await MakeAutomaticAsync(("town", "'Corran'"), ("postcode", "room"));
        var task = await TaskAsync(t => t["automatic"]!["trouble"] is not null);
        task["done"].ShouldBeNull();
        (task["automatic"]!["trouble"]!.Text("pointer"), task["automatic"]!["trouble"]!.Text("code")).ShouldBe(("/postcode", "missing"));
        ((string?)Records.Field(await _orla.GetAsync($"/api/records/{_record}"), "town")["value"]).ShouldNotBe("Corran");
        // Nothing has changed, so nothing is tried again, however often the checklist goes on.
        await _firm.Database.AskAsync($"update hire_tasks set note = 'look again' where hire_id = '{_hire}' and key = 'kit'");
        await QuietAsync();
        (await PastAsync()).ShouldBe(["task.failed"]);

        await _orla.SaveAsync(_record, "room", "Berth 4");
        task = await TaskAsync(t => t["done"] is not null);
        task["automatic"]!["trouble"].ShouldBeNull();
        Records.Field(await _orla.GetAsync($"/api/records/{_record}"), "postcode").Text("value").ShouldBe("Berth 4");
    }

    [Fact]
    public async Task What_is_in_the_way_is_looked_for_again_when_somebody_asks()
    {
        await MakeAutomaticAsync(("site", "'atlantis'"));
        var task = await TaskAsync(t => t["automatic"]!["trouble"] is not null);
        task["automatic"]!["trouble"]!.Text("code").ShouldBe("unknown-entry");
        await _firm.Database.AskAsync($$"""update hire_tasks set set_formulas = '{"''skerry''"}' where hire_id = '{{_hire}}' and key = 'kit'""");
        await QuietAsync();
        (await TaskAsync(_ => true))["done"].ShouldBeNull();
        // Whoever does not own it may not; whoever does may.
        using (var eoin = await _firm.As("eoin"))
        using (var refused = await RetryAsync(eoin))
            refused.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using (var nils = await _firm.As("nils"))
        using (var asked = await RetryAsync(nils))
            asked.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await TaskAsync(t => t["done"] is not null)).Text("doneBy").ShouldBe("Fid");
        using (var again = await RetryAsync(_orla))
            (await again.JsonAsync()).Text("code").ShouldBe("done");
    }

    [Fact]
    public async Task By_hand_it_can_be_done_in_the_meantime()
    {
        await MakeAutomaticAsync(("postcode", "nothing_like_it"));
        await TaskAsync(t => t["automatic"]!["trouble"] is not null);
        using (var ticked = await _orla.SendAsync("POST", "/api/tasks/done", new { tasks = Tasks }))
            ticked.StatusCode.ShouldBe(HttpStatusCode.OK);
        await QuietAsync();
        (await TaskAsync(_ => true)).Text("doneBy").ShouldBe("Orla Dunmore");
    }

    [Theory]
    [InlineData("""[{"field":"town","formula":"'Corran'"},{"field":"room","formula":"given_name"}]""", null)]
    [InlineData("""[{"field":"town","formula":"'Corran'"},{"field":"town","formula":"'Hallan'"}]""", "twice")]
    [InlineData("""[{"field":"atlantis","formula":"1"}]""", "unknown-field")]
    [InlineData("""[{"field":"items","formula":"1"}]""", "not-settable")]
    [InlineData("""[{"field":"town","formula":" "}]""", "missing")]
    [InlineData("""[{"field":"town","formula":"given_name +"}]""", "formula-error")]
    [InlineData("""[{"field":"town","formula":"atlantis"}]""", "unknown-field")]
    [InlineData("""[{"field":"town"}]""", "bad-value")]
    [InlineData("""["town"]""", "bad-value")]
    [InlineData("[]", "missing")]
    public async Task A_template_says_which_fields_it_sets_and_to_what(string sets, string? code)
    {
        var spec = await WithTaskAsync(sets);
        using var answer = await _orla.SendAsync("POST", "/api/templates/deckhand/example", Example(spec));
        var found = (await answer.JsonAsync())["findings"]!.AsArray().Where(f => (string?)f!["key"] == "set").Select(f => f!.Text("code"));
        found.ShouldBe(code is null ? [] : [code], sets);
    }

    [Fact]
    public async Task Nobody_sees_or_changes_by_a_task_what_they_may_not_see_of_a_record()
    {
        using var piet = await _firm.As("piet");
        var live = await _orla.GetAsync("/api/templates/deckhand");
        var drafted = await _orla.DraftAsync(
            "deckhand",
            await WithTaskAsync("""[{"field":"town","formula":"'Corran'"},{"field":"room","formula":"town"}]"""),
            null
        );
        await _orla.PublishAsync("deckhand", drafted.Text("version"));
        await Markers.HideAsync(piet, _orla, "coordinator", "town");

        live = await _orla.GetAsync("/api/templates/deckhand");
        // One reads the hidden field, the other sets it: neither shows.
        live.ToJsonString().ShouldNotContain("Corran");
        TaskOf(live["live"]!)!["properties"]!["sets"].ShouldBeNull();
        // Saved without them, they stay as they were.
        var spec = live["live"]!.DeepClone();
        TaskOf(spec)!["properties"]!["name"] = "Put into the record";
        var renamed = await _orla.DraftAsync("deckhand", spec, null);
        await _orla.PublishAsync("deckhand", renamed.Text("version"));
        TaskOf((await piet.GetAsync("/api/templates/deckhand"))["live"]!)!["properties"]!.ToJsonString().ShouldContain("Corran");
        // Nor does what a hire would get tell of it, nor a task that templates share.
        using (var example = await _orla.SendAsync("POST", "/api/templates/deckhand/example", Example(spec)))
            (await example.Content.ReadAsStringAsync()).ShouldNotContain("Corran");
        var shared = new
        {
            properties = new
            {
                name = "Shared",
                kind = "run",
                sets = new[] { new { field = "town", formula = "'Corran'" } },
            },
            why = "A test",
        };
        using (var saved = await piet.SendAsync("PUT", "/api/shared-tasks/settled", shared))
            saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync());
        (await _orla.GetAsync("/api/shared-tasks")).ToJsonString().ShouldNotContain("Corran");
        (await piet.GetAsync("/api/shared-tasks")).ToJsonString().ShouldContain("Corran");
        using (var brought = await _orla.SendAsync("PUT", "/api/shared-tasks/unsettled", shared))
            (await brought.JsonAsync())["errors"]!
                .AsArray()
                .Select(e => $"{e!.Text("pointer")} {e!.Text("code")}")
                .ShouldBe(["/properties/sets unknown-field"]);
        // And nobody brings in what they may not see.
        TaskOf(spec)!["properties"]!["sets"] = JsonNode.Parse("""[{"field":"room","formula":"town"}]""");
        using var refused = await _orla.SendAsync("PUT", "/api/templates/deckhand/draft", new JsonObject { ["spec"] = spec.DeepClone() }.ToJsonString());
        (await refused.JsonAsync())["errors"]!.AsArray().Select(e => e!.Text("code")).ShouldBe(["unknown-field"]);
    }

    private static object Example(JsonNode spec) =>
        new
        {
            spec,
            use = (string?)null,
            facts = new { },
            start = (string?)null,
        };

    private static JsonNode? TaskOf(JsonNode spec) => spec["lists"]!["tasks"]!.AsArray().SingleOrDefault(t => t!.Text("key") == "set");

    private async Task<JsonNode> WithTaskAsync(string sets)
    {
        var spec = (await _orla.GetAsync("/api/templates/deckhand"))["live"]!.DeepClone();
        var task = JsonNode.Parse("""{"key":"set","properties":{"name":"Put in","stage":"prepare","owner":"team:stores","kind":"run"}}""")!;
        task["properties"]!["sets"] = JsonNode.Parse(sets);
        spec["lists"]!["tasks"]!.AsArray().Add(task);
        return spec;
    }

    private object Tasks => new[] { new { hire = _hire, key = "kit" } };

    private Task<HttpResponseMessage> RetryAsync(Caller caller) => caller.SendAsync("POST", "/api/tasks/retried", new { tasks = Tasks });

    // As a template would have made it; that the row changes sets the checklist going.
    private Task<object?> MakeAutomaticAsync(params (string Field, string Formula)[] sets)
    {
        string Array(IEnumerable<string> of) => $"array[{string.Join(", ", of.Select(o => $"'{o.Replace("'", "''", StringComparison.Ordinal)}'"))}]";
        return _firm.Database.AskAsync(
            $"""
            update hire_tasks set kind = 'Run', name = 'Fit out', done = null, done_by = null, after = array[]::text[], lags = array[]::int[],
              opens_anchor = null, set_fields = {Array(sets.Select(s => s.Field))}, set_formulas = {Array(sets.Select(s => s.Formula))}
            where hire_id = '{_hire}' and key = 'kit'
            """
        );
    }

    private async Task<JsonNode> TaskAsync(Func<JsonNode, bool> once)
    {
        JsonNode task;
        do task = (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == "kit")!;
        while (!once(task));
        return task;
    }

    // Until nothing is left to be done for the checklist.
    private async Task QuietAsync()
    {
        while (await _firm.Database.AskAsync("select not exists (select from jobs where kind in ('checklist', 'run'))") is not true) { }
    }

    private async Task<string[]> PastAsync() =>
        [
            .. (await _orla.GetAsync($"/api/hires/{_hire}/tasks/kit/history"))["changes"]!
                .AsArray()
                .Select(c => c!.Text("action"))
                .Where(a => a.StartsWith("task.", StringComparison.Ordinal)),
        ];

    private async Task<string[]> ChangesAsync() =>
        (string[])
            (
                await _firm.Database.AskAsync(
                    $"""
                    select coalesce(array_agg(by_name || ': ' || why), '{"{}"}') from changes
                    where subject_id = '{_record}' and by_name = 'Fid' and action like 'record.%'
                    """
                )
            )!;
}
