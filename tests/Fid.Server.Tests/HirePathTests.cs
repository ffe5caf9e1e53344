using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The main path: from a template to a running checklist.</summary>
public class HirePathTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task The_template_fills_the_record_and_each_value_says_where_it_came_from()
    {
        using var orla = await firm.As("orla");
        var preview = await (await orla.SendAsync("POST", "/api/hires/preview", Records.NewHire("Liv", "Østby").ToJsonString())).JsonAsync();
        string Source(string field) => preview["values"]!.AsArray().Single(v => v!.Text("field") == field)!["source"]!.ToJsonString();
        Source("pay_rate").ShouldBe("""{"kind":"template","name":"Deckhand","version":4}""");
        Source("shift_pattern").ShouldBe("""{"kind":"template","name":"Crew basics","version":2}""");
        Source("cost_centre").ShouldBe("""{"kind":"addOn","name":"Skerry Pier","version":1}""");
        Source("holiday_calendar").ShouldBe("""{"kind":"site","name":null,"version":null}""");
        Source("badge").ShouldContain("nextFree");
        Source("manager").ShouldContain("departmentHead");
        Source("given_name").ShouldContain("typed");
        preview["feasible"]!.GetValue<bool>().ShouldBeFalse();
        preview.Text("soonestStart").ShouldBe("2027-03-19");
        preview["missing"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_hire_is_opened_once_however_often_it_is_sent_and_has_a_badge_of_its_own()
    {
        using var orla = await firm.As("orla");
        var request = Records.NewHire("Ada", "Quilty");
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => orla.SendAsync("POST", "/api/hires", request.ToJsonString())));
        answers.Count(a => a.StatusCode == HttpStatusCode.Created).ShouldBeGreaterThanOrEqualTo(1);
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.Created || a.StatusCode == HttpStatusCode.Conflict);
        (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Count(h => h!.Text("familyName") == "Quilty").ShouldBe(1);

        // Two at the same moment get two badges.
        var both = await Task.WhenAll(new[] { "Uno", "Dos" }.Select(n => orla.SendAsync("POST", "/api/hires", Records.NewHire(n, "Badger").ToJsonString())));
        both.ShouldAllBe(a => a.StatusCode == HttpStatusCode.Created);
        (await firm.Database.AskAsync("select count(distinct badge) from records_now where family_name = 'Badger'")).ShouldBe(2L);
    }

    [Fact]
    public async Task Employee_numbers_are_written_as_the_firm_says_and_none_is_left_out_however_many_open_at_once()
    {
        using var orla = await firm.As("orla");
        var settings = (await orla.GetAsync("/api/setup"))["settings"]!.AsObject();
        settings["numberPattern"] = "H{yy}-{number:4}{check}{check}";
        using (var wrong = await orla.SendAsync("PUT", "/api/setup/settings", settings.ToJsonString()))
            (await wrong.ErrorsAsync()).ShouldBe([("/numberPattern", "bad-pattern")]);
        settings["numberPattern"] = "H{yy}-{number:4}{check}";
        (await orla.GetAsync("/api/setup/number?pattern=H%7Byy%7D-%7Bnumber:4%7D%7Bcheck%7D")).Text("number").ShouldBe("H27-00011");
        (await orla.SendAsync("PUT", "/api/setup/settings", settings.ToJsonString())).EnsureSuccessStatusCode();

        // Every fifth of those who come at once is refused, after others have taken their numbers.
        var opened = await Task.WhenAll(
            Enumerable.Range(0, 20).Select(i => orla.SendAsync("POST", "/api/hires", Records.NewHire($"N{i}", i % 5 == 0 ? "" : "Counted").ToJsonString()))
        );
        opened.Count(o => o.StatusCode == HttpStatusCode.Created).ShouldBe(16);
        (await firm.Database.AskAsync("select string_agg(substr(number, 5, 4), ' ' order by number) from employments where number like 'H27-%'")).ShouldBe(
            string.Join(' ', Enumerable.Range(1, 16).Select(n => n.ToString("0000", System.Globalization.CultureInfo.InvariantCulture)))
        );

        // Numbered through again, it goes on where it was.
        settings["numberPattern"] = "{number}";
        (await orla.SendAsync("PUT", "/api/setup/settings", settings.ToJsonString())).EnsureSuccessStatusCode();
        var last = Convert.ToInt64(await firm.Database.AskAsync("select max(number::int) from employments where number ~ '^[0-9]+$'"), null);
        var next = await (await orla.SendAsync("POST", "/api/hires", Records.NewHire("Next", "Counted").ToJsonString())).JsonAsync();
        next.Text("number").ShouldBe((last + 1).ToString(System.Globalization.CultureInfo.InvariantCulture));
    }

    [Fact]
    public async Task A_hire_without_the_least_is_refused_at_the_fields()
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync(
            "POST",
            "/api/hires",
            new
            {
                id = Guid.NewGuid(),
                template = "deckhand",
                start = (string?)null,
                typed = new { email = "nobody", site = "atlantis" },
            }
        );
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.ErrorsAsync()).ShouldBe(
            [
                ("/typed/email", "bad-value"),
                ("/typed/site", "unknown-entry"),
                ("/start", "missing"),
                ("/typed/given_name", "missing"),
                ("/typed/family_name", "missing"),
            ],
            ignoreOrder: true
        );
    }

    [Fact]
    public async Task Ticking_moves_readiness_the_rope_and_what_holds_it_up_and_can_be_taken_back()
    {
        using var orla = await firm.As("orla");
        var before = await FirmFixture.HireAsync(orla, "Brandt");
        before["holdUp"]!.Text("key").ShouldBe("radio-order");
        (await orla.SendAsync("PUT", $"/api/hires/{before["id"]}/tasks/radio-order/done", new { done = (string?)null })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        var after = await FirmFixture.HireAsync(orla, "Brandt");
        after["readiness"]!["done"]!.GetValue<int>().ShouldBe(before["readiness"]!["done"]!.GetValue<int>() + 1);
        after["holdUp"]!.Text("key").ShouldNotBe("radio-order");
        after["feasible"]!.GetValue<bool>().ShouldBeTrue();
        string.CompareOrdinal(after["rope"]!.Text("to"), before["rope"]!.Text("to")).ShouldBeGreaterThan(0);

        await orla.SendAsync("DELETE", $"/api/hires/{before["id"]}/tasks/radio-order/done");
        (await FirmFixture.HireAsync(orla, "Brandt")).ToJsonString().ShouldBe(before.ToJsonString());
        (
            await firm.Database.AskAsync(
                $"select string_agg(action || ' ' || part || ' ' || by_name, ', ' order by at) from changes where subject_id = '{before["id"]}' "
                    + "and origin = 'checklist'"
            )
        ).ShouldBe("task.done radio-order Orla Dunmore, task.undone radio-order Orla Dunmore");
    }

    [Fact]
    public async Task A_checklist_tells_since_when_each_task_could_be_done_and_who_did_what()
    {
        using var orla = await firm.As("orla");
        var id = (await FirmFixture.HireAsync(orla, "Okafor")).Text("id");
        var tasks = (await orla.GetAsync($"/api/hires/{id}"))["tasks"]!.AsArray();
        foreach (var task in tasks)
        {
            if (task!["canStart"]!.GetValue<bool>())
                string.CompareOrdinal(task.Text("since"), "2027-03-01").ShouldBeLessThanOrEqualTo(0, task.Text("key"));
            else
                task["since"].ShouldBeNull(task.Text("key"));
        }
        // Done last Wednesday and said so today: what only waited for that could have been begun that day.
        var waits = tasks.First(t =>
            !t!["canStart"]!.GetValue<bool>()
            && t["done"] is null
            && t["after"] is JsonArray { Count: 1 }
            && tasks.Any(o => o!.Text("name") == t["after"]![0]!.Text("name") && o!["canStart"]!.GetValue<bool>())
        )!;
        var before = tasks.Single(o => o!.Text("name") == waits["after"]![0]!.Text("name"))!;
        (await orla.SendAsync("PUT", $"/api/hires/{id}/tasks/{before.Text("key")}/done", new { done = "2027-02-24" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        tasks = (await orla.GetAsync($"/api/hires/{id}"))["tasks"]!.AsArray();
        tasks.Single(t => t!.Text("key") == waits.Text("key"))!.Text("since").ShouldBe("2027-02-24");
        var change = tasks.Single(t => t!.Text("key") == before.Text("key"))!["change"]!;
        (change.Text("by"), change.Text("action")).ShouldBe(("Orla Dunmore", "task.done"));
    }

    [Fact]
    public async Task What_holds_it_up_is_proved_link_by_link_to_a_day_that_is_given()
    {
        using var orla = await firm.As("orla");
        var id = (await FirmFixture.HireAsync(orla, "Brandt")).Text("id");
        var hire = await orla.GetAsync($"/api/hires/{id}");
        var chain = hire["chain"]!.AsArray();
        chain[0]!.Text("key").ShouldBe(hire["holdUp"]!.Text("key"));
        chain
            .Select(l => (l!.Text("name"), l!.Text("by"), (string?)l!["nextName"]))
            .ShouldBe([("Order radio", "task", "Program radio"), ("Program radio", "dayOne", null)]);
        foreach (var link in chain)
        {
            var task = hire["tasks"]!.AsArray().Single(t => t!.Text("key") == link!.Text("key"))!;
            (link!.Text("earliestFinish"), link!.Text("latestFinish")).ShouldBe((task.Text("earliestFinish"), task.Text("latestFinish")));
        }
    }

    [Fact]
    public async Task A_task_is_done_today_or_before_and_skipped_for_a_reason()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Nakamura");
        (await (await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/medical/done", new { done = "2027-03-02" })).ErrorsAsync()).ShouldBe([
            ("/done", "in-future"),
        ]);
        (await (await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/medical/skipped", new { why = "  " })).ErrorsAsync())
            .Single()
            .Pointer.ShouldBe("/why");
        (await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/medical/skipped", new { why = "Seen last season" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var task = (await orla.GetAsync($"/api/hires/{hire["id"]}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == "medical")!;
        (task.Text("state"), task.Text("skippedWhy")).ShouldBe(("skipped", "Seen last season"));
    }

    [Fact]
    public async Task An_owner_does_own_tasks_and_no_others()
    {
        using var nils = await firm.As("nils");
        using var orla = await firm.As("orla");
        var tasks = (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray();
        tasks.Select(t => t!.Text("owner")).Distinct().ShouldBe(["team:stores"]);
        var hire = await FirmFixture.HireAsync(orla, "Kerbrat");
        (await nils.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/kit/done", new { done = (string?)null })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await nils.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/account/done", new { done = (string?)null })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Count.ShouldBe(tasks.Count - 1);
    }

    [Fact]
    public async Task Moving_the_start_says_what_changes_before_it_does_and_takes_the_record_along()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Weiß");
        var shown = await orla.GetAsync($"/api/hires/{hire["id"]}");
        var change = await orla.GetAsync($"/api/hires/{hire["id"]}/start-change?to=2027-04-19");
        change["days"]!.GetValue<int>().ShouldBe(7);
        var sailed = change["tasks"]!.AsArray().Single(t => t!.Text("key") == "meet")!;
        (sailed["before"]!.Text("due"), sailed["after"]!.Text("due")).ShouldBe(("2027-04-12", "2027-04-19"));
        change["values"]!
            .AsArray()
            .Select(v => $"{v!["field"]} {v["before"]} {v["after"]}")
            .ShouldBe(["end_date 2027-11-12 2027-11-19", "probation_end 2027-10-12 2027-10-19"], ignoreOrder: true);
        (await FirmFixture.HireAsync(orla, "Weiß")).Text("start").ShouldBe("2027-04-12"); // asking moved nothing

        (
            await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-19", why = "Ferry refit" }, shown.Text("version"))
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await FirmFixture.HireAsync(orla, "Weiß")).Text("start").ShouldBe("2027-04-19");
        (
            await firm.Database.AskAsync(
                $"""
                select string_agg(distinct lower(effective)::text, ' ') from record_values
                where owner_id = '{hire["employmentId"]}' and upper_inf(known)
                """
            )
        ).ShouldBe("2027-04-19");
        (await firm.Database.AskAsync($"select why from changes where subject_id = '{hire["id"]}' and action = 'start.moved'")).ShouldBe("Ferry refit");
        (await ProbationAsync(orla, hire)).ShouldBe("2027-10-19");

        // What somebody typed is theirs and stays; an end that was set does not come before the start.
        await orla.SaveAsync(hire.Text("employmentId"), "probation_end", "2027-12-24");
        await orla.SaveAsync(hire.Text("employmentId"), "end_date", "2028-01-31");
        (await firm.Database.AskAsync($"select \"end\"::text from employments where id = '{hire["employmentId"]}'")).ShouldBe("2028-01-31");
        var seen = (await orla.GetAsync($"/api/hires/{hire["id"]}")).Text("version");
        using (var beyond = await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2028-02-01", why = (string?)null }, seen))
            (await beyond.ErrorsAsync()).ShouldBe([("/start", "after-end")]);
        (await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-26", why = (string?)null }, seen)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (await ProbationAsync(orla, hire)).ShouldBe("2027-12-24");
    }

    private static async Task<string> ProbationAsync(Caller caller, JsonNode hire) =>
        Records.Field(await caller.GetAsync($"/api/records/{hire["employmentId"]}"), "probation_end").Text("value");

    [Fact]
    public async Task The_second_of_two_who_move_a_start_gets_both_versions()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var hire = await FirmFixture.HireAsync(orla, "Dlamini");
        var seen = (await orla.GetAsync($"/api/hires/{hire["id"]}")).Text("version");
        (await piet.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-13", why = (string?)null }, seen)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        using var second = await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-14", why = (string?)null }, seen);
        second.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await second.JsonAsync())["current"]!.Text("start").ShouldBe("2027-04-13");
        (await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-14", why = (string?)null })).StatusCode.ShouldBe(
            HttpStatusCode.PreconditionRequired
        );
    }
}
