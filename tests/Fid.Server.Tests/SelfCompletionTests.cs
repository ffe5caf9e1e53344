using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Checklists;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Tasks that are done when the record says so. The firm's today is 1 March 2027.</summary>
public sealed class SelfCompletionTests : IAsyncLifetime
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
        var spec = (await _orla.GetAsync("/api/templates/deckhand"))["live"]!;
        spec["lists"]!["tasks"]!.AsArray().Add(Task("reach", "fill", ["phone", "clothing_size"]));
        spec["lists"]!["tasks"]!.AsArray().Add(Task("hand-out", "issue", ["RADIO"]));
        spec["lists"]!["tasks"]!.AsArray().Add(Task("sea", "certify", ["SEA"]));
        spec["lists"]!["tasks"]!.AsArray().Add(Task("look", "check", ["phone"]));
        var draft = await _orla.DraftAsync("deckhand", spec, null);
        await _orla.PublishAsync("deckhand", draft.Text("version"));
        var opened = await _orla.OpenAsync("Selwyn");
        (_hire, _record) = (opened.Text("id"), (await FirmFixture.HireAsync(_orla, "Selwyn")).Text("employmentId"));
        await GoOnAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await _acts.DisposeAsync();
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task A_task_completes_itself_with_its_fields_and_falls_open_without_them_each_on_record()
    {
        Needs(await TaskAsync("reach")).ShouldBe(["Telephone lacks", "Clothing size lacks"]);
        await _orla.SaveAsync(_record, "phone", "+353 1 555 0142");
        await GoOnAsync();
        (await TaskAsync("reach"))["done"].ShouldBeNull();
        await _orla.SaveAsync(_record, "clothing_size", "M");
        await GoOnAsync();
        var reach = await TaskAsync("reach");
        (reach.Text("done"), reach.Text("doneBy"), (bool)reach["mayTick"]!).ShouldBe(("2027-03-01", "Fid", false));
        Needs(reach).ShouldBe(["Telephone has", "Clothing size has"]);

        await _orla.SaveAsync(_record, "phone", null);
        await GoOnAsync();
        (await TaskAsync("reach"))["done"].ShouldBeNull();
        (await TrailAsync()).ShouldBe(["task.done reach by Fid", "task.undone reach by Fid"]);
        // What is as it should be leaves no trace.
        await GoOnAsync();
        (await TrailAsync()).Count.ShouldBe(2);
    }

    [Fact]
    public async Task An_item_is_issued_and_a_certificate_obtained_by_their_rows_and_the_day_can_end_it()
    {
        var rows = await RowsAsync();
        await _orla.SaveAsync(
            _record,
            new
            {
                changes = new Dictionary<string, string?>
                {
                    [$"items.issued@{rows["items.item RADIO"]}"] = "2027-03-01",
                    [$"certificates.from@{rows["certificates.kind SEA"]}"] = "2026-03-10",
                    [$"certificates.until@{rows["certificates.kind SEA"]}"] = "2027-06-20",
                },
                from = (string?)null,
                why = (string?)null,
            }
        );
        await GoOnAsync();
        ((await TaskAsync("hand-out")).Text("done"), (await TaskAsync("sea")).Text("done")).ShouldBe(("2027-03-01", "2027-03-01"));

        // One server at a time: that of March would not agree.
        await _firm.Server.DisposeAsync();
        await using var later = new FidInstance(_firm.Database.Connection, today: new(2027, 6, 21));
        await using var acts = new ActCaller(later);
        (await acts.Get<AdvanceChecklistsDaily>().DoAsync(new AdvanceChecklistsDailyRequest(), await acts.AsFidAsync("test"), default))
            .IsDone(out _, out _)
            .ShouldBeTrue();
        using var orla = await Caller.SignedInAsync(later.Address, "orla");
        var tasks = (await orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().ToDictionary(t => t!.Text("key"), t => t!["done"]?.GetValue<string>());
        (tasks["hand-out"], tasks["sea"]).ShouldBe(("2027-03-01", null));
    }

    [Fact]
    public async Task Nobody_ticks_it_off_or_takes_it_back_but_it_can_be_skipped()
    {
        await _orla.SaveAsync(_record, "clothing_size", "M");
        (await SentAsync("PUT", $"/api/hires/{_hire}/tasks/reach/done", new { done = (string?)null })).ShouldBe((HttpStatusCode.Conflict, "by-itself"));
        // With others, they are done and it stays.
        (
            await SentAsync("POST", "/api/tasks/done", new { tasks = new[] { new { hire = _hire, key = "reach" }, new { hire = _hire, key = "kit" } } })
        ).Status.ShouldBe(HttpStatusCode.OK);
        ((await TaskAsync("reach"))["done"], (await TaskAsync("kit")).Text("done")).ShouldBe((null, "2027-03-01"));
        await _orla.SaveAsync(_record, "phone", "+353 1 555 0142");
        await GoOnAsync();
        (await SentAsync("DELETE", $"/api/hires/{_hire}/tasks/reach/done", null)).ShouldBe((HttpStatusCode.Conflict, "by-itself"));

        (await SentAsync("PUT", $"/api/hires/{_hire}/tasks/sea/skipped", new { why = "Stays ashore" })).Status.ShouldBe(HttpStatusCode.NoContent);
        await GoOnAsync();
        (await TaskAsync("sea"))["done"].ShouldBeNull();
        // What is only to be looked over is ticked off by hand, whatever the record says.
        (await SentAsync("PUT", $"/api/hires/{_hire}/tasks/look/done", new { done = (string?)null })).Status.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Of_a_hidden_field_nothing_is_said_by_the_task_that_asks_for_it()
    {
        await _firm.Database.AskAsync($"update hire_tasks set owner = 'team:stores', about = '{{phone,pay_rate}}' where hire_id = '{_hire}' and key = 'reach'");
        Needs(await TaskAsync("reach")).Count.ShouldBe(2);
        using var nils = await _firm.As("nils");
        using var seen = await nils.SendAsync("GET", $"/api/hires/{_hire}");
        var said = await seen.Content.ReadAsStringAsync();
        said.ShouldNotContain("Pay rate");
        (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Single(t => t!.Text("hireId") == _hire && t!.Text("key") == "reach")!["completesItself"]!
            .GetValue<bool>()
            .ShouldBeTrue();
    }

    [Fact]
    public async Task A_record_that_changes_asks_for_a_checklist_only_where_a_task_follows_from_it()
    {
        var other = await FirmFixture.HireAsync(_orla, "Brandt");
        (await AskedForAsync(_hire, _record)).ShouldBe(1);
        (await AskedForAsync(other.Text("id"), other.Text("employmentId"))).ShouldBe(0);
    }

    // What a change of the record puts into the queue, seen within its own transaction, which is given up.
    private async Task<int> AskedForAsync(string hire, string record)
    {
        var id = Guid.Parse(record);
        await using var transaction = await _acts.Db.Database.BeginTransactionAsync();
        foreach (var field in new[] { "site", "job" })
            (
                await _acts.Db.Database.ExecuteSqlAsync(
                    $"""
                    update record_values set known = tstzrange(lower(known), now()), ended_by = (select min(id::text)::uuid from changes)
                    where owner_id = {id} and field = {field} and upper_inf(known)
                    """
                )
            ).ShouldBe(1);
        return await _acts
            .Db.Database.SqlQuery<int>($"""select count(*)::int as "Value" from jobs where kind = 'checklist' and argument = {hire} and made_at = now()""")
            .SingleAsync();
    }

    [Theory]
    [InlineData("fill", null, "missing")]
    [InlineData("issue", "NOTHING", "unknown-entry")]
    [InlineData("check", "items.serial", "unknown-entry")]
    public async Task What_a_task_is_about_has_to_be_there(string kind, string? about, string code)
    {
        var spec = (await _orla.GetAsync("/api/templates/engine-hand"))["live"]!;
        spec["lists"]!["tasks"]!.AsArray().Add(Task("about-what", kind, about is null ? [] : [about]));
        var draft = await _orla.DraftAsync("engine-hand", spec, null);
        using var refused = await _orla.SendAsync("POST", "/api/templates/engine-hand/draft/publish", new { why = "So" }, draft.Text("version"));
        (await refused.ErrorsAsync()).ShouldContain(e => e.Code == code && e.Pointer.Contains("about", StringComparison.Ordinal));
    }

    private static JsonObject Task(string key, string kind, string[] about) =>
        new()
        {
            ["key"] = key,
            ["drop"] = false,
            ["shared"] = null,
            ["properties"] = new JsonObject
            {
                ["name"] = $"Task {key}",
                ["stage"] = "prepare",
                ["owner"] = "coordinator",
                ["kind"] = kind,
                ["about"] = new JsonArray([.. about.Select(a => (JsonNode)a)]),
            },
        };

    private async Task GoOnAsync()
    {
        _acts.Db.ChangeTracker.Clear();
        (await _acts.Get<AdvanceChecklists>().DoAsync(new AdvanceChecklistsRequest([Guid.Parse(_hire)]), await _acts.AsFidAsync("test"), default))
            .IsDone(out _, out _)
            .ShouldBeTrue();
    }

    private async Task<JsonNode> TaskAsync(string key) => (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == key)!;

    private static List<string> Needs(JsonNode task) =>
        [.. task["needs"]!.AsArray().Select(n => $"{n!.Text("label")} {((bool)n!["isMet"]! ? "has" : "lacks")}")];

    private async Task<List<string>> TrailAsync()
    {
        var id = Guid.Parse(_hire);
        return await _acts
            .Db.Changes.AsNoTracking()
            .Where(c => c.SubjectId == id && c.Action.StartsWith("task."))
            .OrderBy(c => c.At)
            .Select(c => $"{c.Action} {c.Part} by {c.ByName}")
            .ToListAsync();
    }

    // The rows that the template gave the record, by their column and what they are about.
    private async Task<Dictionary<string, Guid>> RowsAsync()
    {
        var record = Guid.Parse(_record);
        var rows = await _acts
            .Db.RecordValues.AsNoTracking()
            .Where(v => v.RowId != null && (v.Field == "items.item" || v.Field == "certificates.kind"))
            .Join(_acts.Db.CurrentRecords.Where(r => r.EmploymentId == record), v => 1, r => 1, (v, r) => new { v, r })
            .Where(x => x.v.OwnerId == x.r.EmploymentId || x.v.OwnerId == x.r.PersonId)
            .Select(x => x.v)
            .ToListAsync();
        return rows.ToDictionary(r => $"{r.Field} {r.Value.GetString()}", r => r.RowId!.Value);
    }

    private async Task<(HttpStatusCode Status, string? Code)> SentAsync(string method, string path, object? body)
    {
        using var response = await _orla.SendAsync(method, path, body);
        return (response.StatusCode, response.IsSuccessStatusCode ? null : (await response.JsonAsync()).Text("code"));
    }
}
