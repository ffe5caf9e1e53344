using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Checklists;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Tasks and stages that apply where a condition holds. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class ConditionTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private ActCaller _acts = null!;
    private string _hire = "";
    private string _record = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        _acts = new ActCaller(_firm.Server);
        var spec = await SpecAsync();
        spec["lists"]!["tasks"]!.AsArray().Add(Task("bunk", "kind == 'seasonal'"));
        spec["lists"]!["tasks"]!.AsArray().Add(Task("desk", "kind == 'permanent'"));
        spec["lists"]!["stages"] = new JsonArray(Stage("confirm", "kind == 'permanent'"));
        var draft = await _orla.DraftAsync("deckhand", spec, null);
        await _orla.PublishAsync("deckhand", draft.Text("version"));
        var opened = await _orla.OpenAsync("Selwyn");
        (_hire, _record) = (opened.Text("id"), (await FirmFixture.HireAsync(_orla, "Selwyn")).Text("employmentId"));
    }

    public async ValueTask DisposeAsync()
    {
        await _acts.DisposeAsync();
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task What_does_not_apply_is_out_of_the_plan_from_the_beginning_and_comes_and_goes_with_the_record()
    {
        (await StateAsync("bunk"), await StateAsync("desk")).ShouldBe(("skipped", "waiting"));
        var confirm = (await TasksAsync()).Values.Where(t => t.Text("stage") == "confirm").Select(t => t.Text("key")).ToArray();
        confirm.ShouldNotBeEmpty();
        foreach (var key in confirm)
            (await StateAsync(key)).ShouldNotBe("skipped");

        await BecomesAsync("seasonal");
        (await StateAsync("bunk"), await StateAsync("desk")).ShouldBe(("ready", "skipped"));
        foreach (var key in confirm)
            (await StateAsync(key)).ShouldBe("skipped");
        var desk = (await TasksAsync())["desk"];
        ((bool)desk["skippedByCondition"]!, desk.Text("when")).ShouldBe((true, "kind == 'permanent'"));
        (await TrailAsync("desk")).ShouldBe(["task.skipped by Fid"]);
        (await TrailAsync("bunk")).ShouldBe(["task.unskipped by Fid"]);
        // Once more changes nothing.
        await GoOnAsync();
        (await TrailAsync("desk")).Count.ShouldBe(1);

        await BecomesAsync("permanent");
        (await StateAsync("bunk"), await StateAsync("desk")).ShouldBe(("skipped", "waiting"));
    }

    [Fact]
    public async Task What_somebody_did_or_skipped_stays_and_nobody_says_that_it_applies_against_its_condition()
    {
        (await SentAsync("DELETE", $"/api/hires/{_hire}/tasks/bunk/skipped", null)).ShouldBe((HttpStatusCode.Conflict, "by-condition"));
        (await SentAsync("PUT", $"/api/hires/{_hire}/tasks/desk/skipped", new { why = "Stays at sea" })).Status.ShouldBe(HttpStatusCode.NoContent);
        // Done all the same: whoever did it knows better.
        (await SentAsync("PUT", $"/api/hires/{_hire}/tasks/bunk/done", new { done = "2027-03-01" })).Status.ShouldBe(HttpStatusCode.NoContent);
        await GoOnAsync();
        (await StateAsync("bunk")).ShouldBe("done");
        await BecomesAsync("seasonal");
        await BecomesAsync("permanent");
        var tasks = await TasksAsync();
        (tasks["bunk"].Text("done"), tasks["desk"].Text("skippedWhy"), (bool)tasks["desk"]["skippedByCondition"]!).ShouldBe(
            ("2027-03-01", "Stays at sea", false)
        );
    }

    [Fact]
    public async Task Another_condition_in_the_template_reaches_hires_under_way_and_those_that_do_not_apply_too()
    {
        var spec = await SpecAsync();
        var bunk = spec["lists"]!["tasks"]!.AsArray().Single(t => t!.Text("key") == "bunk")!;
        bunk["properties"]!["when"] = "site == 'skerry'";
        spec["lists"]!["stages"] = new JsonArray(Stage("confirm", "kind == 'seasonal'"));
        var draft = await _orla.DraftAsync("deckhand", spec, null);
        await _orla.PublishAsync("deckhand", draft.Text("version"));
        var updates = await _orla.GetAsync("/api/templates/deckhand/updates");
        var mine = updates.AsArray().Single(u => u!.Text("id") == _hire)!;
        var facts = mine["facts"]!.AsArray().Select(f => f!.Text("fact")).ToArray();
        facts.ShouldBe(["tasks/bunk/when", "stages/confirm"], true);
        (await SentAsync("POST", "/api/templates/updates", new { hires = new[] { new { id = _hire, take = facts } } })).Status.ShouldBe(HttpStatusCode.OK);
        await GoOnAsync();
        (await StateAsync("bunk")).ShouldBe("ready");
        (await TasksAsync()).Values.Where(t => t.Text("stage") == "confirm").ShouldAllBe(t => (bool)t["skippedByCondition"]!);
    }

    [Theory]
    [InlineData("tasks", "kind ==", "formula-error")]
    [InlineData("tasks", "kynd == 'seasonal'", "unknown-field")]
    [InlineData("stages", "kind ==", "formula-error")]
    [InlineData("stages", "kynd == 'seasonal'", "unknown-field")]
    public async Task A_condition_that_cannot_be_worked_out_is_found_before_it_is_published(string list, string when, string code)
    {
        var spec = await SpecAsync();
        spec["lists"]![list]!.AsArray().Add(list == "tasks" ? Task("odd", when) : Stage("arrive", when));
        var draft = await _orla.DraftAsync("deckhand", spec, null);
        using var refused = await _orla.SendAsync("POST", "/api/templates/deckhand/draft/publish", new { why = (string?)null }, ifMatch: draft.Text("version"));
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.ErrorsAsync()).Select(e => e.Code).ShouldContain(code);
    }

    [Fact]
    public async Task A_stage_that_is_not_there_has_no_condition()
    {
        var spec = await SpecAsync();
        spec["lists"]!["stages"]!.AsArray().Add(Stage("leave-after", "kind == 'seasonal'"));
        var example = await (
            await _orla.SendAsync(
                "POST",
                "/api/templates/deckhand/example",
                new
                {
                    spec,
                    use = (string?)null,
                    facts = new { },
                    start = (string?)null,
                }
            )
        ).JsonAsync();
        example["findings"]!.AsArray().Select(f => (f!.Text("part"), f!.Text("code"))).ShouldContain(("stages", "unknown-stage"));
        // The plan of the example leaves out what does not apply to it.
        example["plan"]!["tasks"]!.AsArray().Select(t => t!.Text("key")).ShouldNotContain("bunk");
    }

    [Fact]
    public async Task A_condition_on_a_hidden_field_is_said_to_nobody_who_may_not_see_it()
    {
        await _firm.Database.AskAsync($"update hire_tasks set \"when\" = 'pay_rate > 20', owner = 'team:stores' where hire_id = '{_hire}' and key = 'bunk'");
        ((await TasksAsync())["bunk"]).Text("when").ShouldBe("pay_rate > 20");
        using var nils = await _firm.As("nils");
        using var seen = await nils.SendAsync("GET", $"/api/hires/{_hire}");
        (await seen.Content.ReadAsStringAsync()).ShouldNotContain("pay_rate > 20");
    }

    private async Task<JsonNode> SpecAsync() => (await _orla.GetAsync("/api/templates/deckhand"))["live"]!;

    private static JsonObject Task(string key, string when) =>
        new()
        {
            ["key"] = key,
            ["properties"] = new JsonObject
            {
                ["name"] = $"The {key}",
                ["stage"] = key == "desk" ? "arrive" : "prepare",
                ["owner"] = "team:stores",
                ["when"] = when,
            },
        };

    private static JsonObject Stage(string key, string when) =>
        new()
        {
            ["key"] = key,
            ["properties"] = new JsonObject { ["when"] = when },
        };

    private async Task BecomesAsync(string kind)
    {
        await _orla.SaveAsync(_record, "kind", kind);
        (await _firm.Database.AskAsync($"select count(*)::int from jobs where kind = 'checklist' and argument = '{_hire}' and state <> 'Done'")).ShouldNotBe(
            -1
        );
        await GoOnAsync();
    }

    private async Task GoOnAsync()
    {
        // As another job would: the server goes on with it too.
        _acts.Db.ChangeTracker.Clear();
        (await _acts.Get<AdvanceChecklists>().DoAsync(new AdvanceChecklistsRequest([Guid.Parse(_hire)]), await _acts.AsFidAsync("test"), default))
            .IsDone(out _, out _)
            .ShouldBeTrue();
    }

    private async Task<Dictionary<string, JsonNode>> TasksAsync() =>
        (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().ToDictionary(t => t!.Text("key"), t => t!);

    private async Task<string> StateAsync(string key) => (await TasksAsync())[key].Text("state");

    private async Task<(HttpStatusCode Status, string Code)> SentAsync(string method, string path, object? body)
    {
        using var response = await _orla.SendAsync(method, path, body);
        return (response.StatusCode, response.IsSuccessStatusCode ? "" : (await response.JsonAsync()).Text("code"));
    }

    private async Task<List<string>> TrailAsync(string task)
    {
        var told = await _firm.Database.AskAsync(
            $"""
            select string_agg(action || ' by ' || by_name, ',' order by at) from changes
            where subject_id = '{_hire}' and part = '{task}' and action like 'task.%'
            """
        );
        return told is string all ? [.. all.Split(',')] : [];
    }
}
