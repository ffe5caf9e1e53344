using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Checklists;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Checklists of those who change jobs or leave. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class OccasionTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private string _person = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        _person = await _orla.PersonAsync("Morita");
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task Who_leaves_is_listed_apart_with_stages_and_a_day_of_their_own_and_the_record_ends_on_it()
    {
        var before = (await _orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Count;
        var hire = await LeavingAsync("2027-03-19");
        var record = await RecordAsync();
        (Value(record, "end_date"), Value(record, "end_reason"), record["hire"]).ShouldBe(("2027-03-19", "own-wish", null));
        record["checklists"]!.AsArray().Select(c => (c!.Text("id"), c!.Text("occasion"), c!.Text("day"))).ShouldBe([(hire, "leaving", "2027-03-19")]);

        (await _orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Count.ShouldBe(before);
        var leavers = await _orla.GetAsync("/api/arrivals?occasion=leaving");
        leavers["hires"]!.AsArray().Select(h => h!.Text("id")).ShouldContain(hire);
        leavers["stages"]!.AsArray().Select(s => s!.Text("key")).ShouldBe(["leave-prepare", "leave-last-day", "leave-after"]);
        leavers["counts"]!.AsArray().Select(c => (c!.Text("occasion"), (int)c!["count"]!)).ShouldBe([("arrival", before), ("jobChange", 1), ("leaving", 2)]);
        var checklist = await _orla.GetAsync($"/api/hires/{hire}");
        checklist["stages"]!.AsArray().Select(s => s!.Text("key")).ShouldBe(["leave-prepare", "leave-last-day", "leave-after"]);
        var tasks = checklist["tasks"]!.AsArray().ToDictionary(t => t!.Text("key"), t => t!);
        (tasks["hand-over"].Text("ownerName"), tasks["hand-over"].Text("due"), tasks["items-back"].Text("due")).ShouldBe(
            ($"{record.Text("givenName")} {record.Text("familyName")}", "2027-03-16", "2027-03-19")
        );
        // What a record needs by a stage is not asked for anew by somebody who leaves.
        record["evaluation"]!["missingNow"]!.ToJsonString().ShouldBe((await RecordAsync())["evaluation"]!["missingNow"]!.ToJsonString());
        await _firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task The_last_day_moves_with_its_checklist_and_the_checklist_with_the_last_day()
    {
        var hire = await LeavingAsync("2027-03-19");
        using var moved = await MoveAsync(hire, "2027-04-09");
        moved.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await moved.JsonAsync()).Text("start").ShouldBe("2027-04-09");
        Value(await RecordAsync(), "end_date").ShouldBe("2027-04-09");
        // Put right in the record itself, whoever did it: the two never say different things.
        await _orla.SaveAsync(_person, "end_date", "2027-04-16");
        (await _orla.GetAsync($"/api/hires/{hire}")).Text("start").ShouldBe("2027-04-16");
        using var early = await MoveAsync(hire, "2001-04-09");
        (await early.ErrorsAsync()).ShouldBe([("/start", "before-start")]);
        Value(await RecordAsync(), "end_date").ShouldBe("2027-04-16");
    }

    [Fact]
    public async Task Who_stays_after_all_has_no_end_any_more_and_who_leaves_all_the_same_has_it_again()
    {
        var hire = await LeavingAsync("2027-03-19");
        using var absent = await _orla.SendAsync("PUT", $"/api/hires/{hire}/outcome", new { outcome = "noShow", why = "Where is he" });
        (await absent.ErrorsAsync()).ShouldBe([("/outcome", "not-here")]);
        (await CallOffAsync(hire)).ShouldBe(HttpStatusCode.OK);
        var record = await RecordAsync();
        (Value(record, "end_date"), Value(record, "end_reason"), record["checklists"]!.AsArray().Count).ShouldBe((null, null, 0));
        (await _firm.Database.AskAsync($"select \"end\" is null from employments where id = '{_person}'")).ShouldBe(true);
        var told = await _firm.Database.AskAsync($"select count(*)::int from outbox where hire_id = '{hire}'");
        told.ShouldBe(0);
        (await _orla.SendAsync("DELETE", $"/api/hires/{hire}/outcome")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Value(await RecordAsync(), "end_date").ShouldBe("2027-03-19");
        (await _orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().ShouldAllBe(t => t!["skippedWhy"] == null);
    }

    [Fact]
    public async Task Another_job_holds_from_its_day_moves_with_it_and_goes_when_the_change_is_called_off()
    {
        var was = Value(await RecordAsync(), "job");
        var hire = await ChangeAsync("2027-04-01", new { job = "DK-4", site = "mv-corran" });
        (await JobOnAsync("2027-03-31"), await JobOnAsync("2027-04-01"), Value(await RecordAsync(), "job")).ShouldBe((was, "DK-4", was));
        using var moved = await MoveAsync(hire, "2027-05-01");
        moved.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await JobOnAsync("2027-04-30"), await JobOnAsync("2027-05-01")).ShouldBe((was, "DK-4"));
        (await CallOffAsync(hire)).ShouldBe(HttpStatusCode.OK);
        (await JobOnAsync("2027-06-01")).ShouldBe(was);
        (await _orla.SendAsync("DELETE", $"/api/hires/{hire}/outcome")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await JobOnAsync("2027-04-30"), await JobOnAsync("2027-05-01")).ShouldBe((was, "DK-4"));
        await _firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task A_change_of_job_whose_record_was_changed_since_is_not_moved_over_it()
    {
        var hire = await ChangeAsync("2027-04-01", new { job = "DK-4" });
        await _orla.SaveAsync(
            _person,
            new
            {
                changes = new { job = "DK-2" },
                from = "2027-04-01",
                why = (string?)null,
            }
        );
        using var moved = await MoveAsync(hire, "2027-05-01");
        (await moved.ErrorsAsync()).ShouldBe([("/start", "changed-since")]);
        ((await _orla.GetAsync($"/api/hires/{hire}")).Text("start"), await JobOnAsync("2027-04-02")).ShouldBe(("2027-04-01", "DK-2"));
    }

    [Theory]
    [InlineData("leaving", "deckhand", "2027-03-19", "{}", "/template", "unknown-template")]
    [InlineData("leaving", "new-job", "2027-03-19", "{}", "/template", "unknown-template")]
    [InlineData("leaving", "leaver", "2001-03-19", "{}", "/day", "before-start")]
    [InlineData("leaving", "leaver", "0001-03-19", "{}", "/day", "bad-date")]
    [InlineData("leaving", "leaver", "2027-03-19", "{\"job\":\"DK-4\"}", "/values/job", "not-here")]
    [InlineData("leaving", "leaver", "2027-03-19", "{\"end_reason\":\"whatever\"}", "/values/end_reason", "unknown-entry")]
    [InlineData("jobChange", "new-job", "2027-04-01", "{\"phone\":\"+353 1 555 0142\"}", "/values/phone", "not-here")]
    [InlineData("jobChange", "new-job", "2027-04-01", "{\"start_date\":\"2027-04-01\"}", "/values/start_date", "read-only")]
    [InlineData("jobChange", "new-job", "2027-04-01", "{\"job\":\"XX-9\"}", "/values/job", "unknown-entry")]
    [InlineData("arrival", "deckhand", "2027-04-01", "{}", "/occasion", "bad-value")]
    public async Task What_is_wrong_is_said_at_the_field_and_nothing_of_it_stays(
        string occasion,
        string template,
        string day,
        string values,
        string pointer,
        string code
    )
    {
        using var refused = await SendAsync(Guid.NewGuid(), occasion, template, day, JsonNode.Parse(values)!);
        (await refused.ErrorsAsync()).ShouldBe([(pointer, code)]);
        (await RecordAsync())["checklists"]!.AsArray().ShouldBeEmpty();
        Value(await RecordAsync(), "end_date").ShouldBeNull();
    }

    [Fact]
    public async Task It_is_opened_once_however_often_it_is_sent_and_one_of_a_kind_at_a_time()
    {
        var id = Guid.NewGuid();
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => SendAsync(id, "leaving", "leaver", "2027-03-19", new JsonObject())));
        answers.Select(a => a.StatusCode).ShouldAllBe(s => s == HttpStatusCode.OK);
        var others = await Task.WhenAll(
            Enumerable.Range(0, 3).Select(_ => SendAsync(Guid.NewGuid(), "jobChange", "new-job", "2027-03-10", new JsonObject { ["job"] = "DK-4" }))
        );
        others.Count(o => o.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        foreach (var late in others.Where(o => o.StatusCode != HttpStatusCode.OK))
            (late.StatusCode, (await late.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "under-way"));
        (await _firm.Database.AskAsync($"select string_agg(occasion, ' ' order by occasion) from hires where employment_id = '{_person}'")).ShouldBe(
            "JobChange Leaving"
        );
        // Past the last day the job does not change any more.
        using var after = await MoveAsync(
            (await RecordAsync())["checklists"]!.AsArray().Single(c => c!.Text("occasion") == "jobChange")!.Text("id"),
            "2027-03-22"
        );
        (await after.ErrorsAsync()).ShouldBe([("/start", "after-end")]);
    }

    [Fact]
    public async Task Everything_issued_is_back_when_the_record_says_so_and_the_checklist_is_through_when_all_is_done()
    {
        await using var acts = new ActCaller(_firm.Server);
        var hire = (await _orla.GetAsync("/api/arrivals?occasion=leaving"))["hires"]!.AsArray().Single()!;
        var (id, person) = (hire.Text("id"), hire.Text("employmentId"));
        var back = await TaskAsync("items-back");
        back["needs"]!
            .AsArray()
            .Select(n => (n!.Text("label"), (bool)n!["isMet"]!))
            .ShouldBe([("Locker key", false), ("Radio", false), ("Tool roll", false)], true);
        var rows = FieldsOf(await _orla.GetAsync($"/api/records/{person}")).Single(f => f.Text("key") == "items")["rows"]!["rows"]!.AsArray();
        await _orla.SaveAsync(
            person,
            new
            {
                changes = rows.ToDictionary(r => $"items.returned@{r!.Text("id")}", _ => "2027-03-01"),
                from = (string?)null,
                why = (string?)null,
            }
        );
        await GoOnAsync();
        ((await TaskAsync("items-back")).Text("done"), (await TaskAsync("items-back")).Text("doneBy")).ShouldBe(("2027-03-01", "Fid"));

        // With all of it done nothing is left once the day has come: it is through by itself, and stays to be looked back at.
        var open = (await _orla.GetAsync($"/api/hires/{id}"))["tasks"]!
            .AsArray()
            .Where(t => t!["done"] is null)
            .Select(t => new { hire = id, key = t!.Text("key") });
        (await _orla.SendAsync("POST", "/api/tasks/done", new { tasks = open })).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var today = await MoveAsync(id, "2027-03-01");
        today.StatusCode.ShouldBe(HttpStatusCode.OK);
        await GoOnAsync();
        (await _orla.GetAsync("/api/arrivals?occasion=leaving"))["hires"]!.AsArray().ShouldBeEmpty();
        (await _orla.GetAsync($"/api/hires/{id}")).Text("settled").ShouldBe("2027-03-01");
        (await _orla.GetAsync($"/api/records/{person}"))["checklists"]!.AsArray().Single()!.Text("finished").ShouldBe("2027-03-01");

        async Task<JsonNode> TaskAsync(string key) => (await _orla.GetAsync($"/api/hires/{id}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == key)!;

        async Task GoOnAsync() =>
            (await acts.Get<AdvanceChecklists>().DoAsync(new AdvanceChecklistsRequest([Guid.Parse(id)]), await acts.AsFidAsync("test"), default))
                .IsDone(out _, out _)
                .ShouldBeTrue();
    }

    [Fact]
    public async Task A_template_for_leavers_has_tasks_alone_stages_of_its_own_and_is_offered_to_no_newcomer()
    {
        var spec = (await _orla.GetAsync("/api/templates/leaver"))["live"]!;
        spec["values"]!["pay_group"] = "crew";
        spec["lists"]!["tasks"]!.AsArray()[0]!["properties"]!["stage"] = "prepare";
        spec["buildsOn"] = "crew-basics";
        var example = await (await _orla.SendAsync("POST", "/api/templates/leaver/example", Example(spec))).JsonAsync();
        example["findings"]!.AsArray().Select(f => f!.Text("code")).ShouldBe(["other-occasion", "tasks-only", "unknown-stage"], true);
        spec["occasion"] = "arrival";
        using var changed = await _orla.SendAsync("PUT", "/api/templates/leaver/draft", new { spec });
        (await changed.ErrorsAsync()).ShouldBe([("/spec/occasion", "fixed")]);
        var hire = Records.NewHire("Nobody", "Newly");
        hire["template"] = "leaver";
        using var refused = await _orla.SendAsync("POST", "/api/hires", hire.ToJsonString());
        (await refused.ErrorsAsync()).ShouldContain(("/template", "unknown-template"));
    }

    [Fact]
    public async Task Who_may_not_change_the_end_of_a_record_opens_no_leaving_and_hears_of_none()
    {
        using var nils = await _firm.As("nils");
        using var refused = await SendAsync(Guid.NewGuid(), "leaving", "leaver", "2027-03-19", new JsonObject(), nils);
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var offer = await nils.SendAsync("GET", $"/api/people/{_person}/checklists/offer?occasion=leaving");
        offer.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        // A member of a team has their own tasks of it all the same.
        var leaver = (await _orla.GetAsync("/api/arrivals?occasion=leaving"))["hires"]!.AsArray().Single()!.Text("id");
        (await nils.GetAsync("/api/tasks"))["tasks"]!
            .AsArray()
            .Where(t => t!.Text("hireId") == leaver)
            .Select(t => (t!.Text("key"), t!.Text("occasion")))
            .ShouldBe([("items-back", "leaving")]);
    }

    private async Task<string> LeavingAsync(string day)
    {
        var id = Guid.NewGuid();
        using var opened = await SendAsync(id, "leaving", "leaver", day, new JsonObject { ["end_reason"] = "own-wish" });
        opened.StatusCode.ShouldBe(HttpStatusCode.OK);
        return (await opened.JsonAsync()).Text("id");
    }

    private async Task<string> ChangeAsync(string day, object values)
    {
        using var opened = await SendAsync(Guid.NewGuid(), "jobChange", "new-job", day, System.Text.Json.JsonSerializer.SerializeToNode(values)!);
        opened.StatusCode.ShouldBe(HttpStatusCode.OK);
        return (await opened.JsonAsync()).Text("id");
    }

    private Task<HttpResponseMessage> SendAsync(Guid id, string occasion, string template, string day, JsonNode values, Caller? caller = null) =>
        (caller ?? _orla).SendAsync(
            "POST",
            $"/api/people/{_person}/checklists",
            new
            {
                id,
                occasion,
                template,
                day,
                values,
                why = (string?)null,
            }
        );

    private async Task<HttpResponseMessage> MoveAsync(string hire, string to) =>
        await _orla.SendAsync(
            "PUT",
            $"/api/hires/{hire}/start",
            new { start = to, why = "Agreed otherwise" },
            ifMatch: (await _orla.GetAsync($"/api/hires/{hire}")).Text("version")
        );

    private async Task<HttpStatusCode> CallOffAsync(string hire) =>
        (await _orla.SendAsync("PUT", $"/api/hires/{hire}/outcome", new { outcome = "withdrawn", why = "Stays" })).StatusCode;

    private static object Example(JsonNode spec) =>
        new
        {
            spec,
            use = (string?)null,
            facts = new { },
            start = (string?)null,
        };

    private Task<JsonNode> RecordAsync() => _orla.GetAsync($"/api/records/{_person}");

    private async Task<string?> JobOnAsync(string day) =>
        (string?)
            await _firm.Database.AskAsync(
                $"""
                select value #>> array[]::text[] from record_values
                where owner_id = '{_person}' and field = 'job' and upper_inf(known) and effective @> date '{day}'
                """
            );

    private static IEnumerable<JsonNode> FieldsOf(JsonNode record) => record["sections"]!.AsArray().SelectMany(s => s!["fields"]!.AsArray()).Select(f => f!);

    private static string? Value(JsonNode record, string key) =>
        FieldsOf(record).Single(f => f.Text("key") == key)["value"] is { } value ? (string?)value : null;
}
