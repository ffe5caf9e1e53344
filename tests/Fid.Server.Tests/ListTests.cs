using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Lists: kept, used, retired.</summary>
public class ListTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_code_is_one_however_it_is_capitalised_and_spaced()
    {
        using var orla = await firm.As("orla");
        (await Add(orla, "teams", " Galley-Hands ", "Galley hands")).StatusCode.ShouldBe(HttpStatusCode.Created);
        using var again = await Add(orla, "teams", "GALLEY-hands", "Other");
        (await again.ErrorsAsync()).ShouldBe([("/code", "duplicate-code")]);
        (await orla.GetAsync("/api/lists/teams/entries/galley-hands")).Text("code").ShouldBe("Galley-Hands");
        using var job = await Add(orla, "jobs", "XX-1", "Anything", new JsonObject { ["grade"] = "c2 " });
        (await job.JsonAsync())["values"]!.Text("grade").ShouldBe("C2");
    }

    [Fact]
    public async Task How_many_hold_an_entry_is_true_after_every_change_of_those_who_do()
    {
        using var orla = await firm.As("orla");
        foreach (var code in new[] { "pier-one", "pier-two" })
            (await Add(orla, "departments", code, code)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await HeldAsync()).ShouldBe((0, 0));
        var (one, two) = (await orla.PersonAsync("Haddad"), await orla.PersonAsync("Hauge"));
        await orla.SaveAsync(one, "department", "pier-one");
        (await HeldAsync()).ShouldBe((1, 0));
        await orla.SaveAsync(two, "department", "pier-one");
        (await HeldAsync()).ShouldBe((2, 0));
        // From a later day on they hold both: the one still, the other soon.
        await orla.SaveAsync(
            two,
            new
            {
                changes = new { department = "pier-two" },
                from = "2027-06-01",
                why = (string?)null,
            }
        );
        (await HeldAsync()).ShouldBe((2, 1));
        await using (var later = new FidInstance(firm.Database.Connection, today: new NodaTime.LocalDate(2027, 6, 1)))
        using (var then = await Caller.SignedInAsync(later.Address, "orla"))
            (await HeldAsync(then)).ShouldBe((1, 1));
        await orla.SaveAsync(one, "department", "stores");
        (await HeldAsync()).ShouldBe((1, 1));

        async Task<(int, int)> HeldAsync(Caller? caller = null)
        {
            var entries = (await (caller ?? orla).GetAsync("/api/lists/departments/entries"))["entries"]!.AsArray();
            int Of(string code) => entries.Single(e => e!.Text("code") == code)!["usage"]?["people"]?.GetValue<int>() ?? 0;
            return (Of("pier-one"), Of("pier-two"));
        }
    }

    [Fact]
    public async Task What_is_wrong_stands_at_its_column_and_nothing_is_saved()
    {
        using var orla = await firm.As("orla");
        using var refused = await Add(
            orla,
            "sites",
            "a,b",
            "",
            new JsonObject
            {
                ["time_zone"] = "Moon",
                ["calendar"] = "nowhere",
                ["phone"] = 5,
                ["colour"] = "red",
            }
        );
        (await refused.ErrorsAsync()).ShouldBe(
            [
                ("/code", "bad-characters"),
                ("/name", "missing"),
                ("/values/time_zone", "unknown-time-zone"),
                ("/values/calendar", "unknown-entry"),
                ("/values/phone", "wrong-type"),
                ("/values/colour", "unknown-column"),
            ],
            ignoreOrder: true
        );
        (await firm.Database.AskAsync("select count(*) from list_entries where code = 'a,b'")).ShouldBe(0L);
    }

    [Fact]
    public async Task Two_who_move_branches_below_each_other_at_once_close_no_ring()
    {
        using var orla = await firm.As("orla");
        foreach (var code in new[] { "north", "south" })
            (await Add(orla, "departments", code, code)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var answers = await Task.WhenAll(Move("north", "south"), Move("south", "north"));
        answers.Select(a => a.StatusCode).ShouldBe([HttpStatusCode.OK, HttpStatusCode.BadRequest], ignoreOrder: true);

        async Task<HttpResponseMessage> Move(string code, string below)
        {
            var there = await orla.GetAsync($"/api/lists/departments/entries/{code}");
            return await orla.SendAsync(
                "PUT",
                $"/api/lists/departments/entries/{code}",
                new
                {
                    code,
                    name = code,
                    values = new { parent = below },
                },
                there.Text("version")
            );
        }
    }

    [Fact]
    public async Task The_second_to_save_is_told_and_shown_what_is_there_now()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var seen = (await orla.GetAsync("/api/lists/teams/entries/training")).Text("version");
        (
            await piet.SendAsync(
                "PUT",
                "/api/lists/teams/entries/training",
                new
                {
                    code = "training",
                    name = "Training and drills",
                    values = new { },
                },
                seen
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var late = await orla.SendAsync(
            "PUT",
            "/api/lists/teams/entries/training",
            new
            {
                code = "training",
                name = "Schooling",
                values = new { },
            },
            seen
        );
        late.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await late.JsonAsync())["current"]!.Text("name").ShouldBe("Training and drills");
        (
            await orla.SendAsync(
                "PUT",
                "/api/lists/teams/entries/training",
                new
                {
                    code = "training",
                    name = "Schooling",
                    values = new { },
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.PreconditionRequired);
        (await orla.GetAsync("/api/lists/teams/entries/training/history"))[0]!.Text("by").ShouldBe("Piet Haverkort");
    }

    [Fact]
    public async Task An_entry_in_use_is_not_deleted_but_retired_and_its_users_move_from_a_day_on()
    {
        using var orla = await firm.As("orla");
        (await orla.SendAsync("DELETE", "/api/lists/shiftPatterns/entries/yard")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var users = await orla.GetAsync("/api/lists/shiftPatterns/entries/yard/users");
        var person = users["people"]![0]!.Text("employmentId");
        users["templates"]!.AsArray().Select(t => t!.Text("code")).ShouldBe(["shipwright"]);

        using var self = await orla.SendAsync("POST", "/api/lists/shiftPatterns/entries/yard/retire", new { moveTo = "yard" });
        (await self.ErrorsAsync()).ShouldBe([("/moveTo", "unknown-entry")]);
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/shiftPatterns/entries/yard/retire",
                new
                {
                    moveTo = "OFFICE",
                    from = "2027-04-01",
                    why = "One pattern by day",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);

        (
            await firm.Database.AskAsync(
                $"""
                select string_agg(value #>> array[]::text[] || ' ' || effective::text, ', ' order by effective) from record_values
                where owner_id = '{person}' and field = 'shift_pattern' and upper_inf(known)
                """
            )
        ).ShouldBeOfType<string>().ShouldMatch(@"^yard \[.*,2027-04-01\), office \[2027-04-01,\)$");
        (await firm.Database.AskAsync("select spec -> 'values' ->> 'shift_pattern' || ' ' || version from role_templates where code = 'shipwright'")).ShouldBe(
            "office 2"
        );
        (await orla.GetAsync("/api/options"))["options"]!.AsArray().Single(o => (o!.Text("list"), o!.Text("code")) == ("shiftPatterns", "yard"))!["retired"]!
            .GetValue<bool>()
            .ShouldBeTrue();
        var change = (await orla.GetAsync("/api/lists/shiftPatterns/entries/yard/history"))[0]!;
        (change.Text("action"), change.Text("why")).ShouldBe(("list.retired", "One pattern by day"));
    }

    [Fact]
    public async Task A_team_that_can_only_help_is_in_use_too_and_its_tasks_ask_the_next_one()
    {
        using var orla = await firm.As("orla");
        foreach (var (code, name) in new[] { ("chandlers", "Chandlers"), ("riggers", "Riggers"), ("helpers", "Helpers") })
            (await Add(orla, "teams", code, name)).EnsureSuccessStatusCode();
        // In a template, in a checklist under way, and in a shared task that no template has.
        var spec = (await orla.GetAsync("/api/templates/it-technician"))["live"]!;
        spec["lists"]!["tasks"]![0]!["properties"]!["contact"] = "team:chandlers";
        await orla.PublishAsync("it-technician", (await orla.DraftAsync("it-technician", spec, null)).Text("version"));
        var hire = await FirmFixture.HireAsync(orla, "Brandt");
        await firm.Database.AskAsync($"update hire_tasks set contact = 'team:riggers' where hire_id = '{hire["id"]}' and done is null");
        (
            await orla.SendAsync(
                "PUT",
                "/api/shared-tasks/help",
                new
                {
                    properties = new
                    {
                        name = "Ask for help",
                        stage = "arrive",
                        owner = "buddy",
                        contact = "team:helpers",
                    },
                    why = (string?)null,
                }
            )
        ).EnsureSuccessStatusCode();
        foreach (var code in new[] { "chandlers", "riggers", "helpers" })
            (await orla.SendAsync("DELETE", $"/api/lists/teams/entries/{code}")).StatusCode.ShouldBe(HttpStatusCode.Conflict, code);
        var entries = (await orla.GetAsync("/api/lists/teams/entries"))["entries"]!.AsArray();
        (Usage("chandlers", "templates"), Usage("riggers", "hires")).ShouldBe((1, 1));

        foreach (var code in new[] { "chandlers", "riggers", "helpers" })
            (await orla.SendAsync("POST", $"/api/lists/teams/entries/{code}/retire", new { moveTo = "stores" })).EnsureSuccessStatusCode();
        (await orla.GetAsync("/api/templates/it-technician"))["live"]!["lists"]!["tasks"]![0]!["properties"]!.Text("contact").ShouldBe("team:stores");
        (await orla.GetAsync("/api/shared-tasks")).AsArray().Single(t => t!.Text("key") == "help")!["properties"]!.Text("contact").ShouldBe("team:stores");
        (await firm.Database.AskAsync($"select bool_and(contact = 'team:stores') from hire_tasks where hire_id = '{hire["id"]}' and done is null")).ShouldBe(
            true
        );

        int Usage(string code, string of) => entries.Single(e => e!.Text("code") == code)!["usage"]![of]!.GetValue<int>();
    }

    [Fact]
    public async Task An_entry_nobody_uses_is_deleted_and_cannot_be_chosen_in_the_same_moment()
    {
        using var orla = await firm.As("orla");
        (await Add(orla, "costCentres", "999", "Short-lived")).StatusCode.ShouldBe(HttpStatusCode.Created);
        var hire = await FirmFixture.HireAsync(orla, "Brandt");
        var record = await orla.GetAsync($"/api/records/{hire.Text("employmentId")}");
        var both = await Task.WhenAll(
            orla.SendAsync("DELETE", "/api/lists/costCentres/entries/999"),
            orla.SendAsync(
                "PUT",
                $"/api/records/{hire.Text("employmentId")}",
                new
                {
                    changes = new { cost_centre = "999" },
                    from = (string?)null,
                    why = (string?)null,
                },
                record.Text("version")
            )
        );
        // Whichever came first, the other is refused.
        both.Count(b => b.IsSuccessStatusCode).ShouldBe(1);
        (
            await firm.Database.AskAsync(
                """
                select count(*) from record_values v where field = 'cost_centre'
                  and not exists (select 1 from list_entries e where e.list = 'costCentres' and e.code = v.value #>> array[]::text[])
                """
            )
        ).ShouldBe(0L);
    }

    [Fact]
    public async Task A_seat_shows_who_is_missing_and_gives_the_manager()
    {
        using var orla = await firm.As("orla");
        (await Add(orla, "jobs", "SEAT-1", "Harbour master")).EnsureSuccessStatusCode();
        (
            await Add(
                orla,
                "seats",
                "HM-OFFICE",
                "Payroll head",
                new JsonObject
                {
                    ["job"] = "PY-2",
                    ["department"] = "payroll",
                    ["head_count"] = 1,
                }
            )
        ).EnsureSuccessStatusCode();
        var page = await orla.GetAsync("/api/lists/seats/entries?find=DECKHANDS");
        page["entries"]![0]!["held"]!.GetValue<int>().ShouldBeGreaterThan(10);

        // Exactly one person is a safety officer's head: whoever comes below that seat gets them as manager.
        await firm.Database.AskAsync(
            "update records_now set job_code = 'SEAT-1', department_code = 'safety' where employment_id = (select id from employments where number = '1003')"
        );
        (
            await Add(
                orla,
                "seats",
                "HM",
                "Harbour master",
                new JsonObject
                {
                    ["job"] = "SEAT-1",
                    ["department"] = "safety",
                    ["head_count"] = 2,
                }
            )
        ).EnsureSuccessStatusCode();
        (
            await Add(
                orla,
                "seats",
                "CLERK",
                "Clerks",
                new JsonObject
                {
                    ["job"] = "TC-1",
                    ["department"] = "safety",
                    ["head_count"] = 2,
                    ["reports_to"] = "hm",
                }
            )
        ).EnsureSuccessStatusCode();
        var preview = await (
            await orla.SendAsync(
                "POST",
                "/api/hires/preview",
                new
                {
                    id = Guid.NewGuid(),
                    template = "ticket-clerk",
                    start = "2027-04-01",
                    typed = new { department = "safety", site = "hallan" },
                }
            )
        ).JsonAsync();
        var manager = preview["values"]!.AsArray().Single(v => v!.Text("field") == "manager")!;
        (manager["source"]!.Text("kind"), manager.Text("display")).ShouldBe(("seat", "Piet Haverkort"));
    }

    [Fact]
    public async Task Pickers_find_by_any_part_of_code_or_name_in_any_language()
    {
        using var orla = await firm.As("orla");
        foreach (var (find, code) in new[] { ("kombü", "galley"), ("GALLEY", "galley"), ("landpers", "shore"), ("rew", "shore") })
            (await orla.GetAsync($"/api/options/departments?find={find}")).AsArray().Select(o => o!.Text("code")).ShouldContain(code);
    }

    private static Task<HttpResponseMessage> Add(Caller caller, string list, string code, string name, JsonObject? values = null) =>
        caller.SendAsync(
            "POST",
            $"/api/lists/{list}/entries",
            new JsonObject
            {
                ["code"] = code,
                ["name"] = name,
                ["values"] = values ?? [],
            }.ToJsonString()
        );

    [Fact]
    public async Task An_entry_that_people_hold_as_a_fact_of_their_own_is_counted_and_moves_with_them()
    {
        using var orla = await firm.As("orla");
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/certificates/entries",
                new
                {
                    code = "OLD-RADIO",
                    name = "Old radio ticket",
                    values = new { },
                }
            )
        ).EnsureSuccessStatusCode();
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/certificates/entries",
                new
                {
                    code = "NEW-RADIO",
                    name = "New radio ticket",
                    values = new { },
                }
            )
        ).EnsureSuccessStatusCode();
        var id = (await FirmFixture.HireAsync(orla, "Okafor")).Text("employmentId");
        (
            await orla.ChangeAsync(
                id,
                new
                {
                    changes = new Dictionary<string, object?> { [$"certificates.kind@{Guid.NewGuid()}"] = "OLD-RADIO" },
                    from = (string?)null,
                    why = (string?)null,
                }
            )
        ).EnsureSuccessStatusCode();
        var users = await orla.GetAsync("/api/lists/certificates/entries/OLD-RADIO/users");
        users["people"]!.AsArray().Select(p => p!.Text("employmentId")).ShouldBe([id]);
        using var retired = await orla.SendAsync("POST", "/api/lists/certificates/entries/OLD-RADIO/retire", new { moveTo = "NEW-RADIO" });
        retired.StatusCode.ShouldBe(System.Net.HttpStatusCode.OK, await retired.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var record = await orla.GetAsync($"/api/records/{id}");
        Records.Field(record, "certificates")["rows"]!["rows"]!.AsArray().Select(r => (string)r!["cells"]![0]!["value"]!).ShouldContain("NEW-RADIO");
    }
}
