using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What can be done to tasks, one or many at once, and taken back. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class TaskActTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!,
        _nils = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        await _firm.Database.AskAsync("delete from account_absences");
        (_orla, _nils) = (await _firm.As("orla"), await _firm.As("nils"));
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        _nils.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task Lockers_of_many_are_done_with_one_act_and_what_cannot_be_done_says_why_and_keeps_no_other()
    {
        var kits = (await _nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Where(t => t!.Text("key") == "kit").ToList();
        kits.Count.ShouldBeGreaterThan(3);
        var closed = kits[0]!.Text("hireId");
        (await _orla.SendAsync("PUT", $"/api/hires/{closed}/outcome", new { outcome = "withdrawn", why = "Stepped back" })).EnsureSuccessStatusCode();
        var tasks = kits.Select(k => Ref(k!.Text("hireId"), "kit")).Append(Ref(Guid.NewGuid().ToString(), "kit")).ToArray();

        var answer = await DoneAsync(_nils, "done", new { tasks, done = "2027-02-26" });
        answer["left"]!.AsArray().Select(l => (l!["task"]!.Text("hire"), l.Text("code"))).ShouldContain((closed, "closed"));
        answer["left"]!.AsArray().Select(l => l!.Text("code")).ShouldBe(["closed", "not-found"], ignoreOrder: true);
        answer["changes"]!.AsArray().Count.ShouldBe(kits.Count - 1);
        (await _nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().ShouldNotContain(t => t!.Text("key") == "kit");
        (await TaskAsync(kits[1]!.Text("hireId"), "kit")).Text("done").ShouldBe("2027-02-26");

        // All of it taken back with one act; a second time it is no longer as it was left.
        (await DoneAsync(_nils, "taken-back", new { changes = answer["changes"] }))["changes"]!.AsArray().Count.ShouldBe(kits.Count - 1);
        (await _nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Count(t => t!.Text("key") == "kit").ShouldBe(kits.Count - 1);
        using var again = await _nils.SendAsync("POST", "/api/tasks/taken-back", new { changes = answer["changes"] });
        (again.StatusCode, (await again.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "changed-since"));
    }

    [Fact]
    public async Task What_takes_something_back_can_be_taken_back_and_what_somebody_changed_since_stays()
    {
        var hire = await HireAsync("Brandt");
        var noted = await DoneAsync(_orla, "note", new { tasks = new[] { Ref(hire, "kit") }, note = "  Size 46.\nAsk for wide ones. " });
        (await TaskAsync(hire, "kit")).Text("note").ShouldBe("Size 46.\nAsk for wide ones.");
        var back = await DoneAsync(_orla, "taken-back", new { changes = noted["changes"] });
        (await TaskAsync(hire, "kit"))["note"].ShouldBeNull();
        await DoneAsync(_orla, "taken-back", new { changes = back["changes"] });
        (await TaskAsync(hire, "kit")).Text("note").ShouldBe("Size 46.\nAsk for wide ones.");

        // What was done to another side of the task does not stand in the way; what was done to the same does.
        var ticked = await DoneAsync(_nils, "done", new { tasks = new[] { Ref(hire, "kit") } });
        await DoneAsync(_orla, "note", new { tasks = new[] { Ref(hire, "kit") }, note = "Came in the end." });
        await DoneAsync(_nils, "taken-back", new { changes = ticked["changes"] });
        (await TaskAsync(hire, "kit"))["done"].ShouldBeNull();
        using var late = await _orla.SendAsync("POST", "/api/tasks/taken-back", new { changes = noted["changes"] });
        late.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await TaskAsync(hire, "kit")).Text("note").ShouldBe("Came in the end.");
    }

    [Fact]
    public async Task A_task_done_by_somebody_else_says_who_did_it_and_the_trail_says_who_said_so()
    {
        var hire = await HireAsync("Brandt");
        var eoin = await _firm.Database.AskAsync("select employment_id from records_now where family_name = 'Brannigan'");
        await DoneAsync(_orla, "done", new { tasks = new[] { Ref(hire, "kit") }, by = eoin });
        (await TaskAsync(hire, "kit")).Text("doneBy").ShouldBe("Eoin Brannigan");
        var entry = (await HistoryAsync(hire, "kit"))["changes"]![0]!;
        (entry.Text("by"), entry.Text("action")).ShouldBe(("Orla Dunmore", "task.done"));
        entry["facts"]!.AsArray().Select(f => (f!.Text("name"), (string?)f!["before"], f!.Text("after"))).ShouldContain(("doneBy", null, "Eoin Brannigan"));
        await RefusedAsync("done", new { tasks = new[] { Ref(hire, "badge") }, by = Guid.NewGuid() }, "/by", "unknown-person");
    }

    [Fact]
    public async Task A_pinned_task_keeps_its_day_however_the_start_moves_and_one_pinned_before_what_it_waits_for_is_short()
    {
        var hire = await HireAsync("Weiß");
        var meet = await TaskAsync(hire, "meet");
        meet.Text("due").ShouldBe("2027-04-12");
        await RefusedAsync("day", new { tasks = new[] { Ref(hire, "radio-order") }, day = "2027-03-07" }, "/day", "rest-day");
        await RefusedAsync("day", new { tasks = new[] { Ref(hire, "radio-order") }, day = "1492-10-12" }, "/day", "bad-date");
        var pinned = await DoneAsync(_orla, "day", new { tasks = new[] { Ref(hire, "meet") }, day = "2027-04-14" });
        (await TaskAsync(hire, "meet")).Text("due").ShouldBe("2027-04-14");
        using var moved = await _orla.SendAsync(
            "PUT",
            $"/api/hires/{hire}/start",
            new { start = "2027-04-13", why = (string?)null },
            ifMatch: await VersionAsync(hire)
        );
        moved.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await TaskAsync(hire, "meet")).Text("due").ShouldBe("2027-04-14");
        (await TaskAsync(hire, "meet")).Text("pinned").ShouldBe("2027-04-14");

        // The day after tomorrow, with eight working days of another before it.
        var program = await DoneAsync(_orla, "day", new { tasks = new[] { Ref(hire, "radio-program") }, day = "2027-03-03" });
        var short_ = await TaskAsync(hire, "radio-program");
        (short_.Text("state"), short_["slack"]!.GetValue<int>() < 0).ShouldBe(("atRisk", true));
        await DoneAsync(_orla, "taken-back", new { changes = program["changes"] });
        await DoneAsync(_orla, "taken-back", new { changes = pinned["changes"] });
        (await TaskAsync(hire, "meet")).Text("due").ShouldBe("2027-04-13");
    }

    [Fact]
    public async Task Given_to_somebody_else_a_task_is_theirs_and_its_owners_no_more()
    {
        var hire = await HireAsync("Brandt");
        var thandiwe = await _firm.Database.AskAsync(
            "select r.employment_id from records_now r join users u on u.person_id = r.person_id where u.email = 'thandiwe@halyard.example'"
        );
        using var other = await _firm.As("thandiwe");
        var given = await DoneAsync(
            _orla,
            "owner",
            new
            {
                tasks = new[] { Ref(hire, "kit"), Ref(hire, "badge") },
                owner = $"person:{thandiwe}",
                why = "Nils is full",
            }
        );
        (await MineAsync(other)).ShouldContain((hire, "kit"));
        (await MineAsync(_nils)).ShouldNotContain((hire, "kit"));
        (await TaskAsync(hire, "kit")).Text("ownerName").ShouldBe("Thandiwe Maseko");
        var entry = (await HistoryAsync(hire, "kit"))["changes"]![0]!;
        (entry.Text("action"), entry.Text("why")).ShouldBe(("task.reassigned", "Nils is full"));
        entry["facts"]!.AsArray().Single(f => f!.Text("name") == "owner")!.Text("after").ShouldBe("Thandiwe Maseko");
        await DoneAsync(_orla, "taken-back", new { changes = given["changes"] });
        (await MineAsync(_nils)).ShouldContain((hire, "kit"));
        foreach (var nobody in new[] { "team:nobody", "person:x", $"person:{Guid.NewGuid()}", "somebody", "" })
            await RefusedAsync("owner", new { tasks = new[] { Ref(hire, "kit") }, owner = nobody }, "/owner", "unknown-owner");
    }

    [Fact]
    public async Task What_is_tried_before_it_is_done_is_what_it_comes_to_and_leaves_nothing_behind()
    {
        var hire = await HireAsync("Brandt");
        var before = await _orla.GetAsync($"/api/hires/{hire}");
        before["feasible"]!.GetValue<bool>().ShouldBeFalse();
        var tried = await (await _orla.SendAsync("POST", $"/api/hires/{hire}/tasks/radio-order/trial", new { work = 2, skip = false })).JsonAsync();
        tried["before"]!.Text("soonestStart").ShouldBe(before.Text("soonestStart"));
        (await _orla.GetAsync($"/api/hires/{hire}")).ToJsonString().ShouldBe(before.ToJsonString());
        var shorter = await DoneAsync(
            _orla,
            "shape",
            new
            {
                tasks = new[] { Ref(hire, "radio-order") },
                work = 2,
                why = "Lent by the yard",
            }
        );
        var after = await _orla.GetAsync($"/api/hires/{hire}");
        tried["after"]!["feasible"]!.ToJsonString().ShouldBe(after["feasible"]!.ToJsonString());
        tried["after"]!.Text("soonestStart").ShouldBe(after.Text("soonestStart"));
        ((string?)tried["after"]!["holdUp"]?["key"]).ShouldBe((string?)after["holdUp"]?["key"]);
        foreach (var task in tried["tasks"]!.AsArray())
            ((string?)task!["after"]!["latestStart"]).ShouldBe((string?)Find(after, task.Text("key"))["latestStart"]);
        await DoneAsync(_orla, "taken-back", new { changes = shorter["changes"] });

        // Without what it waits for, the radio can be programmed at once.
        Find(before, "radio-program")["canStart"]!.GetValue<bool>().ShouldBeFalse();
        var waits = Find(before, "radio-program")["after"]!.AsArray().Select(a => a!.Text("key")).ToArray();
        await DoneAsync(_orla, "shape", new { tasks = new[] { Ref(hire, "radio-program") }, without = waits });
        var free = await TaskAsync(hire, "radio-program");
        free["after"]!.AsArray().ShouldBeEmpty();
        (await RefusedAsync("shape", new { tasks = new[] { Ref(hire, "radio-program") }, without = waits }, "/without", "unknown-task")).ShouldNotBeNull();
        await RefusedAsync("shape", new { tasks = new[] { Ref(hire, "radio-order") }, work = 401 }, "/work", "out-of-range");
        await RefusedAsync("shape", new { tasks = new[] { Ref(hire, "radio-order") } }, "/work", "missing");
    }

    [Fact]
    public async Task A_lag_lies_between_two_tasks_for_this_newcomer_alone()
    {
        var (hire, other) = (await HireAsync("Brandt"), await HireAsync("Weiß"));
        var (plain, elsewhere) = (await TaskAsync(hire, "radio-program"), await TaskAsync(other, "radio-program"));
        await DoneAsync(_orla, "shape", new { tasks = new[] { Ref(hire, "radio-program") }, lags = new Dictionary<string, int> { ["radio-order"] = 3 } });
        var late = await TaskAsync(hire, "radio-program");
        late["after"]!.AsArray().Single(a => a!.Text("key") == "radio-order")!["lag"]!.GetValue<int>().ShouldBe(3);
        string.CompareOrdinal(late.Text("earliestStart"), plain.Text("earliestStart")).ShouldBeGreaterThan(0);
        (await TaskAsync(other, "radio-program")).ToJsonString().ShouldBe(elsewhere.ToJsonString());
        await RefusedAsync(
            "shape",
            new { tasks = new[] { Ref(hire, "radio-program") }, lags = new Dictionary<string, int> { ["radio-order"] = -1 } },
            "/lags",
            "out-of-range"
        );
    }

    [Fact]
    public async Task A_task_of_ones_own_stands_between_others_and_makes_no_ring()
    {
        var hire = await HireAsync("Brandt");
        var before = await _orla.GetAsync($"/api/hires/{hire}");
        var added = await DoneAtAsync($"/api/hires/{hire}/tasks", New("Borrow a radio", after: ["radio-order"], before: ["radio-program"], day: null));
        var now = await _orla.GetAsync($"/api/hires/{hire}");
        var own = now["tasks"]!.AsArray().Single(t => t!.Text("name") == "Borrow a radio")!;
        own["added"]!.GetValue<bool>().ShouldBeTrue();
        Find(now, "radio-program")["after"]!.AsArray().Select(a => a!.Text("name")).ShouldContain("Borrow a radio");
        // It is listed behind what it comes after.
        var keys = now["tasks"]!.AsArray().Select(t => t!.Text("key")).ToList();
        keys.IndexOf(own.Text("key")).ShouldBe(keys.IndexOf("radio-order") + 1);

        using var ring = await _orla.SendAsync("POST", $"/api/hires/{hire}/tasks", New("Ring", after: ["radio-program"], before: ["radio-order"], day: null));
        (await ring.ErrorsAsync()).Single().Pointer.ShouldBe("/before");
        using var bad = await _orla.SendAsync(
            "POST",
            $"/api/hires/{hire}/tasks",
            new
            {
                name = " ",
                stage = "nowhere",
                owner = "nobody",
                work = -1,
                required = true,
                dayOne = false,
                day = "0001-01-01",
            }
        );
        (await bad.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(["/name", "/work", "/day", "/owner", "/stage"], ignoreOrder: true);

        // A task that another waits for by now does not go.
        var onlyAddition = added["changes"]!.AsArray().Take(1).Select(c => (string)c!).ToArray();
        using var waited = await _orla.SendAsync("POST", "/api/tasks/taken-back", new { changes = onlyAddition });
        (await waited.JsonAsync()).Text("code").ShouldBe("changed-since");
        await DoneAsync(_orla, "taken-back", new { changes = added["changes"] });
        (await _orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.ToJsonString().Replace("\"change\":", "", StringComparison.Ordinal).ShouldNotContain("Borrow");
        Find(await _orla.GetAsync($"/api/hires/{hire}"), "radio-program")["after"]!
            .ToJsonString()
            .ShouldBe(Find(before, "radio-program")["after"]!.ToJsonString());
    }

    [Fact]
    public async Task The_parts_of_a_split_task_add_up_to_it_and_what_waited_for_it_waits_for_the_second()
    {
        var hire = await HireAsync("Brandt");
        var before = await _orla.GetAsync($"/api/hires/{hire}");
        var whole = Find(before, "radio-order");
        var parts = await DoneAtAsync(
            $"/api/hires/{hire}/tasks/radio-order/parts",
            new
            {
                work = 3,
                name = "Radio delivered",
                owner = "coordinator",
            }
        );
        var now = await _orla.GetAsync($"/api/hires/{hire}");
        var (first, second) = (Find(now, "radio-order"), now["tasks"]!.AsArray().Single(t => t!.Text("name") == "Radio delivered")!);
        (first["work"]!.GetValue<int>() + second["work"]!.GetValue<int>()).ShouldBe(whole["work"]!.GetValue<int>());
        (first["due"], (string?)second["due"]).ShouldBe((null, (string?)whole["due"]));
        second["after"]!.AsArray().Select(a => a!.Text("key")).ShouldBe(["radio-order"]);
        Find(now, "radio-program")["after"]!.AsArray().Select(a => a!.Text("name")).ShouldContain("Radio delivered");
        second.Text("owner").ShouldBe("coordinator");
        second.Text("latestFinish").ShouldBe(whole.Text("latestFinish"));
        using var more = await _orla.SendAsync("POST", $"/api/hires/{hire}/tasks/radio-order/parts", new { work = 3, name = "All of it" });
        (await more.ErrorsAsync()).ShouldBe([("/work", "out-of-range")]);
        await DoneAsync(_orla, "taken-back", new { changes = parts["changes"] });
        Comparable(await _orla.GetAsync($"/api/hires/{hire}")).ShouldBe(Comparable(before));
    }

    [Fact]
    public async Task One_of_a_team_takes_a_task_on_and_gives_it_back_and_others_leave_it_alone()
    {
        await _firm.Database.AskAsync("update users set teams = array_append(teams, 'stores') where email = 'thandiwe@halyard.example'");
        using var thandiwe = await _firm.As("thandiwe");
        var hire = await HireAsync("Brandt");
        await DoneAsync(_nils, "taken", new { tasks = new[] { Ref(hire, "kit") }, take = true });
        var seen = (await thandiwe.GetAsync("/api/tasks"))["tasks"]!.AsArray().Single(t => t!.Text("hireId") == hire && t!.Text("key") == "kit")!;
        (seen.Text("takenBy"), seen["isTakenByMe"]!.GetValue<bool>(), seen["isTeams"]!.GetValue<bool>()).ShouldBe(("Nils Aakre", false, true));
        (await LeftCodeAsync(thandiwe, "taken", new { tasks = new[] { Ref(hire, "kit") }, take = true })).ShouldBe("taken");
        (await LeftCodeAsync(_orla, "taken", new { tasks = new[] { Ref(hire, "account") }, take = true })).ShouldBe("not-in-team");
        // Reminded is who took it, and nobody else of the team.
        var told = (await _orla.GetAsync("/api/reminders?on=2027-03-02"))["messages"]!
            .AsArray()
            .Where(m => m!["lines"]!.AsArray().Any(l => l!["task"]!.Text("hireId") == hire && l["task"]!.Text("name") == seen.Text("name")))
            .Select(m => m!.Text("name"));
        told.ShouldNotContain("Thandiwe Maseko");
        await DoneAsync(_nils, "taken", new { tasks = new[] { Ref(hire, "kit") }, take = false });
        await DoneAsync(thandiwe, "taken", new { tasks = new[] { Ref(hire, "kit") }, take = true });
        (await TaskAsync(hire, "kit")).Text("takenBy").ShouldBe("Thandiwe Maseko");
    }

    [Fact]
    public async Task Whoever_does_a_task_says_what_became_of_it_and_changes_nothing_else()
    {
        var hire = await HireAsync("Brandt");
        var tasks = new[] { Ref(hire, "kit") };
        foreach (
            var (act, body) in new (string, object)[]
            {
                ("skipped", new { tasks, why = "No" }),
                ("unskipped", new { tasks }),
                ("owner", new { tasks, owner = "manager" }),
                ("day", new { tasks, day = "2027-03-03" }),
                ("shape", new { tasks, work = 3 }),
                ("reminders", new { tasks }),
            }
        )
        {
            using var response = await _nils.SendAsync("POST", $"/api/tasks/{act}", body);
            response.StatusCode.ShouldBe(HttpStatusCode.Forbidden, act);
        }
        // What others did to the task is not for its owner to take back.
        var shape = await DoneAsync(_orla, "shape", new { tasks, work = 3 });
        using var back = await _nils.SendAsync("POST", "/api/tasks/taken-back", new { changes = shape["changes"] });
        back.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await LeftCodeAsync(_nils, "done", new { tasks = new[] { Ref(hire, "account") } })).ShouldBe("not-found");
        (await TaskAsync(hire, "kit"))["work"]!.GetValue<int>().ShouldBe(3);
    }

    [Fact]
    public async Task Sent_twice_under_one_key_it_is_done_once_and_can_still_be_taken_back()
    {
        var hire = await HireAsync("Brandt");
        var key = Guid.NewGuid();
        var body = new { tasks = new[] { Ref(hire, "kit") }, note = "Size 46" };
        var first = await (await _orla.SendAsync("POST", "/api/tasks/note", body, key: key)).JsonAsync();
        var second = await (await _orla.SendAsync("POST", "/api/tasks/note", body, key: key)).JsonAsync();
        second["changes"]!.ToJsonString().ShouldBe(first["changes"]!.ToJsonString());
        await DoneAsync(_orla, "taken-back", new { changes = second["changes"] });
        (await TaskAsync(hire, "kit"))["note"].ShouldBeNull();
    }

    [Fact]
    public async Task Two_who_tick_the_same_tasks_at_once_in_whichever_order_neither_wait_for_each_other_nor_do_it_twice()
    {
        var hires = (await _nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Where(t => t!.Text("key") == "kit").Select(t => t!.Text("hireId")).ToArray();
        using var piet = await _firm.As("piet");
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(i =>
                    (i % 2 == 0 ? _orla : piet).SendAsync(
                        "POST",
                        "/api/tasks/done",
                        new { tasks = (i % 2 == 0 ? hires : [.. hires.Reverse()]).Select(h => Ref(h, "kit")).ToArray() }
                    )
                )
        );
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
        var changed = await Task.WhenAll(answers.Select(async a => (await a.JsonAsync())["changes"]!.AsArray().Count));
        changed.Sum().ShouldBe(hires.Length);
    }

    [Theory]
    [InlineData("""{"tasks":null}""")]
    [InlineData("""{"tasks":[]}""")]
    [InlineData("""{"tasks":[null]}""")]
    [InlineData("""{"tasks":[{"hire":"00000000-0000-0000-0000-000000000000","key":null}]}""")]
    public async Task A_request_without_tasks_says_so(string body)
    {
        using var response = await _orla.SendAsync("POST", "/api/tasks/done", JsonNode.Parse(body));
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using var many = await _orla.SendAsync(
            "POST",
            "/api/tasks/done",
            new { tasks = Enumerable.Range(0, 501).Select(i => Ref(Guid.NewGuid().ToString(), $"{i}")) }
        );
        (await many.ErrorsAsync()).ShouldBe([("/tasks", "too-many")]);
    }

    private static object New(string name, string[] after, string[] before, string? day) =>
        new
        {
            name,
            stage = "prepare",
            owner = "team:stores",
            work = 1,
            day,
            after,
            before,
            required = true,
            dayOne = false,
            note = (string?)null,
        };

    private static object Ref(string hire, string key) => new { hire, key };

    private static JsonNode Find(JsonNode hire, string key) => hire["tasks"]!.AsArray().Single(t => t!.Text("key") == key)!;

    // A checklist but for who changed what last, and the hire's version.
    private static string Comparable(JsonNode hire)
    {
        foreach (var task in hire["tasks"]!.AsArray())
            task!.AsObject().Remove("change");
        return hire["tasks"]!.ToJsonString();
    }

    private async Task<string> HireAsync(string name) => (await FirmFixture.HireAsync(_orla, name)).Text("id");

    private async Task<JsonNode> TaskAsync(string hire, string key) => Find(await _orla.GetAsync($"/api/hires/{hire}"), key);

    private async Task<string> VersionAsync(string hire) => (await _orla.GetAsync($"/api/hires/{hire}")).Text("version");

    private Task<JsonNode> HistoryAsync(string hire, string key) => _orla.GetAsync($"/api/hires/{hire}/tasks/{key}/history");

    private static async Task<List<(string Hire, string Key)>> MineAsync(Caller who) =>
        [.. (await who.GetAsync("/api/tasks"))["tasks"]!.AsArray().Select(t => (t!.Text("hireId"), t!.Text("key")))];

    private static Task<JsonNode> DoneAsync(Caller who, string act, object body) => DoneAtAsync(who, $"/api/tasks/{act}", body);

    private Task<JsonNode> DoneAtAsync(string path, object body) => DoneAtAsync(_orla, path, body);

    private static async Task<JsonNode> DoneAtAsync(Caller who, string path, object body)
    {
        using var response = await who.SendAsync("POST", path, body);
        var answer = await response.JsonAsync();
        response.StatusCode.ShouldBe(HttpStatusCode.OK, answer.ToJsonString());
        return answer;
    }

    private static async Task<string> LeftCodeAsync(Caller who, string act, object body)
    {
        using var response = await who.SendAsync("POST", $"/api/tasks/{act}", body);
        return (await response.JsonAsync()).Text("code");
    }

    private async Task<string> RefusedAsync(string act, object body, string pointer, string code)
    {
        using var response = await _orla.SendAsync("POST", $"/api/tasks/{act}", body);
        var errors = await response.ErrorsAsync();
        errors.ShouldContain((pointer, code));
        return errors[0].Code;
    }
}
