using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.PayRuns;
using Fid.Testing;
using Shouldly;
using Xunit;
using static Fid.Testing.PayRuns;

namespace Fid.Server.Tests;

/// <summary>What is to be done for a pay run: begun from a template, planned around the cut-off, settled by whose it is.</summary>
public class RunChecklistTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string April = "2027-04-12";
    private const string Path = "/api/pay-check/checklists";

    [Fact]
    public async Task A_run_may_be_handed_over_once_all_that_is_required_before_is_done_or_skipped()
    {
        using var ruth = await firm.As("ruth");
        (await ruth.GetAsync($"/api/pay-check?group=crew&on={April}"))["checklist"].ShouldBeNull();
        var begun = await BegunAsync(ruth, April);
        // The fortnight to 18 April is paid on Friday the 23rd; its cut-off lies four working days before.
        (await RunAsync(ruth, day: April))["period"]!.Text("cutOff").ShouldBe("2027-04-19");
        Tasks(begun)
            .Select(t => $"{t.Text("stage")}: {t.Text("key")} {t["due"]}")
            .ShouldBe([
                "Before the cut-off: hours 2027-04-16",
                "Before the cut-off: stand-ins 2027-04-16",
                "Before the cut-off: accounts 2027-04-15",
                "Before the hand-over: new-pay 2027-04-19",
                "Before the hand-over: compare 2027-04-21",
                "After the hand-over: bank 2027-04-22",
                "After the hand-over: slips 2027-04-23",
            ]);
        // What is not required, and what comes after, holds nothing up.
        Holding(begun).ShouldBe(4);
        await SettleAsync(ruth, begun, "hours", "done");
        await SettleAsync(ruth, begun, "bank", "done");
        await SettleAsync(ruth, begun, "stand-ins", "skipped", "nobody was away");
        var later = await ChecklistAsync(ruth, April);
        Holding(later).ShouldBe(2);
        (Find(later, "new-pay").Text("state"), Find(later, "slips").Text("state")).ShouldBe(("ready", "waiting"));
        (Find(later, "hours").Text("doneBy"), Find(later, "stand-ins").Text("skippedWhy")).ShouldBe(("Ruth Abara", "nobody was away"));
        await SettleAsync(ruth, begun, "new-pay", "done");
        await SettleAsync(ruth, begun, "compare", "done");
        Holding(await ChecklistAsync(ruth, April)).ShouldBe(0);
        await SettleAsync(ruth, begun, "hours", "open");
        Holding(await ChecklistAsync(ruth, April)).ShouldBe(1);
        (await TrailAsync(begun)).ShouldBe(
            "begun, taskDone hours, taskDone bank, taskSkipped stand-ins (nobody was away), taskDone new-pay, taskDone compare, taskReopened hours"
        );
    }

    [Fact]
    public async Task A_task_is_its_owners_to_tick_who_need_see_nothing_of_pay()
    {
        using var ruth = await firm.As("ruth");
        using var nils = await firm.As("nils");
        using var ines = await firm.As("ines");
        using var orla = await firm.As("orla");
        var crews = await ChecklistAsync(ruth, "2027-02-22");
        var own = (await nils.GetAsync("/api/tasks"))["runs"]!.AsArray().Select(r => r!).Where(r => r.Text("checklistId") == crews.Text("id")).ToList();
        own.Select(r => r["task"]!.Text("key")).ShouldBe(["stand-ins", "slips"]);
        (own[0].Text("payGroup"), own[0]["groupCode"], own[0]["run"]!.Text("cutOff")).ShouldBe(("Crew, fortnightly", null, "2027-03-08"));
        (await ines.GetAsync("/api/tasks"))["runs"]!.AsArray().ShouldBeEmpty();
        (await ruth.GetAsync("/api/tasks"))["runs"]!
            .AsArray()
            .ShouldContain(r => r!.Text("payGroup") == "Crew, fortnightly" && r!["task"]!.Text("key") == "new-pay");

        await SettleAsync(nils, crews, "stand-ins", "done");
        (await nils.GetAsync("/api/tasks"))["runs"]!
            .AsArray()
            .ShouldNotContain(r => r!.Text("checklistId") == crews.Text("id") && r!["task"]!.Text("key") == "stand-ins");
        await SettleAsync(nils, crews, "stand-ins", "open");
        // That one does not apply is not for its owner to say, nor to take back; the tasks of others are hidden from who sees no pay.
        (await TryAsync(nils, crews, "stand-ins", "skipped", "no time")).ShouldBe(HttpStatusCode.Forbidden);
        await SettleAsync(ruth, crews, "stand-ins", "skipped", "nobody was away");
        (await TryAsync(nils, crews, "stand-ins", "done")).ShouldBe(HttpStatusCode.Forbidden);
        await SettleAsync(ruth, crews, "stand-ins", "open");
        (await TryAsync(nils, crews, "new-pay", "done")).ShouldBe(HttpStatusCode.NotFound);
        (await TryAsync(ines, crews, "stand-ins", "done")).ShouldBe(HttpStatusCode.NotFound);
        (await TryAsync(orla, crews, "new-pay", "done")).ShouldBe(HttpStatusCode.Forbidden);
        (await TryAsync(ruth, crews, "no-such", "done")).ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Of_two_who_begin_at_once_one_does_and_what_was_begun_by_mistake_is_taken_away_until_something_is_done()
    {
        using var ruth = await firm.As("ruth");
        const string May = "2027-05-10";
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => BeginAsync(ruth, May)));
        answers.Select(a => a.StatusCode).Order().ShouldBe([HttpStatusCode.NoContent, .. Enumerable.Repeat(HttpStatusCode.Conflict, 7)]);
        var begun = await ChecklistAsync(ruth, May);
        using (var gone = await ruth.SendAsync("DELETE", $"{Path}/{begun.Text("id")}"))
            gone.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await RunAsync(ruth, day: May))["checklist"].ShouldBeNull();
        var again = await BegunAsync(ruth, May);
        await SettleAsync(ruth, again, "hours", "done");
        using (var kept = await ruth.SendAsync("DELETE", $"{Path}/{again.Text("id")}"))
            (kept.StatusCode, (await kept.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "begun"));
        Find(await ChecklistAsync(ruth, May), "hours").Text("state").ShouldBe("done");
        (await SkipErrorsAsync(ruth, again, "compare", "")).ShouldBe([("/why", "missing")]);
        (await SkipErrorsAsync(ruth, again, "compare", new string('x', 501))).ShouldBe([("/why", "too-long")]);
        using var none = await BeginAsync(ruth, "2027-06-07", "leaver");
        (await none.ErrorsAsync()).ShouldBe([("/template", "unknown-template")]);
        using var nowhere = await BeginAsync(ruth, "2027-06-07", group: "nobody");
        nowhere.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_tick_sent_again_under_its_key_does_not_undo_what_came_since()
    {
        using var ruth = await firm.As("ruth");
        var begun = await BegunAsync(ruth, "2027-07-05");
        var key = Guid.NewGuid();
        await SettleAsync(ruth, begun, "hours", "done", actKey: key);
        await SettleAsync(ruth, begun, "hours", "open", actKey: Guid.NewGuid());
        await SettleAsync(ruth, begun, "hours", "done", actKey: key);
        Find(await ChecklistAsync(ruth, "2027-07-05"), "hours")["done"].ShouldBeNull();
    }

    [Fact]
    public async Task The_next_run_of_a_group_begins_with_what_its_template_has_come_to_be()
    {
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/pay-run"))["live"]!;
        spec["name"] = "Run of the offices";
        spec["nameDe"] = null;
        spec["lists"]!["tasks"]!.AsArray().RemoveAt(6);
        await piet.PublishAsync("office-run", (await piet.DraftAsync("office-run", spec, null)).Text("version"));
        (await BeginAsync(ruth, "2027-04-01", "office-run", "office")).EnsureSuccessStatusCode();

        // Of the offices April is begun already, ahead of its time, as later ones of the crews may be; theirs is the fortnight from the 22nd.
        await using var later = new FidInstance(firm.Database.Connection, today: TestDatabase.Today.PlusDays(22));
        await using var acts = new ActCaller(later);
        var fid = await acts.AsFidAsync("test");
        for (var i = 0; i < 2; i++)
        {
            (await acts.Get<BeginNextRunChecklists>().DoAsync(new BeginNextRunChecklistsRequest(), fid, default)).IsDone(out var count, out _).ShouldBeTrue();
            count.ShouldBe(i == 0 ? 1 : 0);
        }
        (
            await firm.Database.AskAsync(
                """
                select string_agg(pay_group || ' ' || period || ' ' || template_code, ', ' order by pay_group, period) from run_checklists
                where period between '2027-03-02' and '2027-04-04'
                """
            )
        ).ShouldBe("crew 2027-03-22 pay-run, office 2027-04-01 office-run");
        (await ruth.GetAsync("/api/pay-check?group=office&on=2027-04-01"))["checklist"]!["tasks"]!.AsArray().Count.ShouldBe(6);
        (await acts.Get<BeginNextRunChecklists>().DoAsync(new BeginNextRunChecklistsRequest(), await acts.AsAsync("orla"), default))
            .IsDone(out _, out _)
            .ShouldBeFalse();
    }

    [Theory]
    [InlineData("owner", "\"newcomer\"", "not-of-pay-run")]
    [InlineData("dayOne", "true", "not-of-pay-run")]
    [InlineData("kind", "\"sign\"", "not-of-pay-run")]
    [InlineData("when", "\"job = 'DK-2'\"", "not-of-pay-run")]
    [InlineData("contact", "\"manager\"", "not-of-pay-run")]
    [InlineData("due", "{\"anchor\":\"hireDate\",\"offset\":1,\"unit\":\"days\"}", "unknown-anchor")]
    public async Task What_speaks_of_a_person_is_not_for_the_tasks_of_a_run(string property, string value, string code)
    {
        using var piet = await firm.As("piet");
        var spec = (await piet.GetAsync("/api/templates/pay-run"))["live"]!;
        spec["lists"]!["tasks"]![0]!["properties"]![property] = JsonNode.Parse(value);
        (await FindingsAsync(piet, "pay-run", spec)).ShouldBe([$"tasks/hours/{property} {code}"]);
    }

    [Fact]
    public async Task The_stages_of_a_run_always_apply_and_only_a_run_has_a_pay_day()
    {
        using var piet = await firm.As("piet");
        var spec = (await piet.GetAsync("/api/templates/pay-run"))["live"]!;
        (await FindingsAsync(piet, "pay-run", spec)).ShouldBeEmpty();
        spec["lists"]!["stages"] = JsonNode.Parse("""[{"key":"run-check","properties":{"when":"site = 'yard'"}}]""");
        (await FindingsAsync(piet, "pay-run", spec)).ShouldBe(["stages/run-check/ not-of-pay-run"]);
        var leaver = (await piet.GetAsync("/api/templates/leaver"))["live"]!;
        leaver["lists"]!["tasks"]![0]!["properties"]!["due"] = JsonNode.Parse("""{"anchor":"payDate","offset":-1,"unit":"working"}""");
        (await FindingsAsync(piet, "leaver", leaver)).ShouldBe(["tasks/notice-confirm/due unknown-anchor"]);
    }

    [Fact]
    public async Task An_add_on_for_one_pay_group_adds_to_its_runs_alone()
    {
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        var spec = JsonNode.Parse(
            """
            {"name":"Yard hours","addOn":true,"buildsOn":null,"when":"pay_group = 'yard'","order":40,"opens":false,"occasion":"payRun","values":{},
             "lists":{"tasks":[
              {"key":"dock","properties":{"name":"Dock book read","stage":"run-gather","owner":"team:payroll"}}]}}
            """
        )!;
        await piet.PublishAsync("yard-hours", (await piet.DraftAsync("yard-hours", spec, null)).Text("version"));
        (await BeginAsync(ruth, "2027-08-02", group: "yard")).EnsureSuccessStatusCode();
        Tasks((await RunAsync(ruth, "yard", "2027-08-02"))["checklist"]!).ShouldContain(t => t.Text("key") == "dock");
        Tasks(await BegunAsync(ruth, "2027-08-02")).ShouldNotContain(t => t.Text("key") == "dock");
    }

    [Fact]
    public async Task A_team_that_gives_way_to_another_leaves_it_the_tasks_of_runs()
    {
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        var begun = await BegunAsync(ruth, "2027-09-13");
        await SettleAsync(ruth, begun, "stand-ins", "done");
        (
            await piet.SendAsync(
                "POST",
                "/api/lists/teams/entries/stores/retire",
                new
                {
                    moveTo = "it",
                    from = "2027-03-01",
                    why = "one hall",
                }
            )
        ).EnsureSuccessStatusCode();
        var after = await ChecklistAsync(ruth, "2027-09-13");
        (Find(after, "slips").Text("owner"), Find(after, "stand-ins").Text("owner")).ShouldBe(("team:it", "team:stores"));
    }

    private async Task<JsonNode> BegunAsync(Caller caller, string day)
    {
        using var response = await BeginAsync(caller, day);
        response.StatusCode.ShouldBe(HttpStatusCode.NoContent, await response.Content.ReadAsStringAsync());
        return await ChecklistAsync(caller, day);
    }

    private static Task<HttpResponseMessage> BeginAsync(Caller caller, string day, string template = "pay-run", string group = "crew") =>
        caller.SendAsync(
            "POST",
            Path,
            new
            {
                payGroup = group,
                period = day,
                template,
            }
        );

    private static async Task<JsonNode> ChecklistAsync(Caller caller, string day) => (await RunAsync(caller, day: day))["checklist"].ShouldNotBeNull();

    private static IEnumerable<JsonNode> Tasks(JsonNode checklist) => checklist["tasks"]!.AsArray().Select(t => t!);

    private static JsonNode Find(JsonNode checklist, string key) => Tasks(checklist).Single(t => t.Text("key") == key);

    private static int Holding(JsonNode checklist) => (int)checklist["holding"]!;

    private static async Task SettleAsync(Caller caller, JsonNode checklist, string key, string to, string? why = null, Guid? actKey = null)
    {
        using var response = await SendAsync(caller, checklist, key, to, why, actKey);
        response.StatusCode.ShouldBe(HttpStatusCode.NoContent, await response.Content.ReadAsStringAsync());
    }

    private static async Task<HttpStatusCode> TryAsync(Caller caller, JsonNode checklist, string key, string to, string? why = null)
    {
        using var response = await SendAsync(caller, checklist, key, to, why);
        return response.StatusCode;
    }

    private static async Task<(string, string)[]> SkipErrorsAsync(Caller caller, JsonNode checklist, string key, string why)
    {
        using var response = await SendAsync(caller, checklist, key, "skipped", why);
        return await response.ErrorsAsync();
    }

    private static Task<HttpResponseMessage> SendAsync(Caller caller, JsonNode checklist, string key, string to, string? why, Guid? actKey = null) =>
        caller.SendAsync("POST", $"{Path}/{checklist.Text("id")}/tasks/{key}", new { to, why }, key: actKey);

    // What keeps the template from being published, as "part/key/property code".
    private static async Task<string[]> FindingsAsync(Caller caller, string code, JsonNode spec)
    {
        using var response = await caller.SendAsync(
            "POST",
            $"/api/templates/{code}/example",
            new JsonObject
            {
                ["spec"] = spec.DeepClone(),
                ["use"] = null,
                ["facts"] = new JsonObject(),
                ["start"] = "2027-05-14",
            }.ToJsonString()
        );
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return
        [
            .. (await response.JsonAsync())["findings"]!
                .AsArray()
                .Where(f => (bool)f!["blocks"]!)
                .Select(f => $"{f!.Text("part")}/{f!["key"]}/{f!["property"]} {f!.Text("code")}"),
        ];
    }

    private Task<object?> TrailAsync(JsonNode checklist) =>
        firm.Database.AskAsync(
            $"""
            select string_agg(substr(action, 8) || coalesce(nullif(' ' || split_part(part, ' ', 3), ' '), '') || coalesce(' (' || why || ')', ''),
              ', ' order by at)
            from changes where subject_id = '{checklist.Text("id")}'
            """
        );
}
