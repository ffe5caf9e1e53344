using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The other ways to open a hire, and what becomes of hires that come to nothing.</summary>
public class OpeningTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Somebody_who_was_here_before_is_recognised_and_starts_a_new_stint_of_the_same_person()
    {
        using var orla = await firm.As("orla");
        var before = await FirmFixture.HireAsync(orla, "Nakamura");
        using var found = await orla.SendAsync(
            "POST",
            "/api/hires/known",
            new
            {
                givenName = "June",
                familyName = "Nakamura",
                birthDate = (string?)null,
                email = "jun.nakamura@example.org",
                phone = (string?)null,
                start = "2027-04-05",
            }
        );
        var known = (await found.JsonAsync())[0]!;
        known["reasons"]!.AsArray().Select(r => (string?)r).ShouldBe(["similarName", "email"]);
        known.Text("firstHired").ShouldBe("2025-04-01");
        known["secondStint"]!.GetValue<bool>().ShouldBeTrue();
        var badge = known["reusable"]!.AsArray().Single(r => r!.Text("field") == "badge")!.Text("shown");

        var request = Records.NewHire("Jun", "Nakamura");
        request["template"] = "galley-cook";
        request["start"] = "2027-04-05";
        request["person"] = known.Text("personId");
        request["reuse"] = new JsonArray("badge");
        request["typed"]!["email"] = "jun@example.org";
        request["typed"]!["given_name"] = null;
        using var preview = await orla.SendAsync("POST", "/api/hires/preview", request.ToJsonString());
        var values = (await preview.JsonAsync())["values"]!.AsArray().ToDictionary(v => v!.Text("field"), v => $"{v!["value"]} {v!["source"]!.Text("kind")}");
        (values["given_name"], values["badge"], values["email"]).ShouldBe(("Jun person", $"{badge} reused", "jun@example.org typed"));
        using (var twice = await orla.SendAsync("POST", "/api/hires", request.ToJsonString()))
            (await twice.ErrorsAsync()).ShouldBe([("/person", "works-here")]);
        (await orla.SendAsync("PUT", $"/api/hires/{before["id"]}/outcome", new { outcome = "withdrawn", why = "A season at home" })).EnsureSuccessStatusCode();
        using (
            var again = await orla.SendAsync(
                "POST",
                "/api/hires/known",
                new
                {
                    givenName = "Jun",
                    familyName = "Nakamura",
                    birthDate = (string?)null,
                    email = "jun.nakamura@example.org",
                    phone = (string?)null,
                    start = "2027-03-29",
                }
            )
        )
        {
            // The season before this one counts with its 183 days, the one before that lies too far back, and what was withdrawn never was.
            var returning = (await again.JsonAsync())[0]!;
            (returning["secondStint"]!.GetValue<bool>(), returning.Text("adjustedService")).ShouldBe((false, "2026-09-27"));
        }
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
        var record = await orla.GetAsync($"/api/records/{(await opened.JsonAsync())["employmentId"]}");
        record["otherStints"]!.AsArray().Count.ShouldBe(3);
        (Records.Field(record, "given_name").Text("value"), Records.Field(record, "badge").Text("value")).ShouldBe(("Jun", badge));
        // What was typed anew holds from today; what was before stays in the history.
        (
            await firm.Database.AskAsync(
                $"select string_agg(value #>> '{{}}' || ' ' || effective::text, ', ' order by effective) from record_values where field = "
                    + $"'email' and owner_id = '{known["personId"]}' and upper_inf(known)"
            )
        )
            .ShouldBeOfType<string>()
            .ShouldEndWith("jun@example.org [2027-03-01,)");
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Like_a_colleague_copies_the_parts_chosen_and_nothing_personal()
    {
        using var orla = await firm.As("orla");
        var colleague = await FirmFixture.HireAsync(orla, "Demirci");
        var request = Records.NewHire("Ola", "Like");
        request["template"] = "deckhand";
        request["like"] = new JsonObject { ["employment"] = colleague.Text("employmentId"), ["parts"] = new JsonArray("job", "pay", "checklist") };
        using var preview = await orla.SendAsync("POST", "/api/hires/preview", request.ToJsonString());
        var answer = await preview.JsonAsync();
        var values = answer["values"]!
            .AsArray()
            .ToDictionary(v => v!.Text("field"), v => $"{v!["value"]} {v!["source"]!.Text("kind")} {v!["source"]!["name"]}");
        var name = $"{colleague["givenName"]} Demirci ({colleague["number"]})";
        values["job"].ShouldBe($"EN-2 like {name}");
        values["pay_rate"].ShouldBe($"17.9 like {name}");
        // The pattern was not asked for, the site was typed, and the badge is nobody else's.
        values["shift_pattern"].ShouldStartWith("four-a template");
        values["site"].ShouldStartWith("skerry typed");
        values["badge"].ShouldEndWith("nextFree ");
        // Without a template it is the one that the colleague was hired from; one hired before there were any says it by their job.
        request["template"] = "";
        foreach (
            var (like, template) in new[]
            {
                (colleague.Text("employmentId"), "Engine hand"),
                (await orla.PersonAsync("Bondar"), null),
                (Guid.NewGuid().ToString(), null),
            }
        )
        {
            request["like"]!["employment"] = like;
            using var alone = await orla.SendAsync("POST", "/api/hires/preview", request.ToJsonString());
            ((string?)(await alone.JsonAsync())["templateName"]).ShouldBe(template, like);
        }
        (request["template"], request["like"]!["employment"]) = ("deckhand", colleague.Text("employmentId"));
        values.ShouldNotContainKey("birth_date");
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        var id = (await opened.JsonAsync()).Text("id");
        var tasks = (await orla.GetAsync($"/api/hires/{id}"))["tasks"]!.AsArray();
        tasks.Select(t => t!.Text("key")).ShouldContain("engine-walk");
        tasks.ShouldAllBe(t => t!["done"] == null);
    }

    [Fact]
    public async Task Each_row_of_the_grid_says_whom_it_may_be_and_gets_a_badge_of_its_own_and_a_person_just_changed_is_known_by_what_they_are_now()
    {
        using var orla = await firm.As("orla");
        async Task<JsonArray> LookAsync(params JsonObject[] hires)
        {
            using var preview = await orla.SendAsync(
                "POST",
                "/api/hires/many/preview",
                new JsonObject { ["hires"] = new JsonArray([.. hires.Select(h => h.DeepClone())]) }.ToJsonString()
            );
            return (await preview.JsonAsync())["rows"]!.AsArray();
        }

        var (known, stranger) = (Records.NewHire("Halyna", "Bondarenko"), Records.NewHire("Nobody", "Hereabouts"));
        known["typed"]!["email"] = "halyna@example.org";
        (await LookAsync(known, stranger)).ShouldAllBe(r => r!["known"] == null);
        var id = await orla.PersonAsync("Bondar");
        await orla.SaveAsync(id, "former_name", "Bondarenko");
        var rows = await LookAsync(known, stranger);
        (rows[0]!["known"]!.Text("employmentId"), rows[0]!["known"]!["reasons"]!.ToJsonString(), rows[1]!["known"]).ShouldBe((id, """["otherName"]""", null));
        var badges = rows.Select(r => r!["preview"]!["values"]!.AsArray().Single(v => v!.Text("field") == "badge")!.Text("value")).ToList();
        badges.Distinct().Count().ShouldBe(2, string.Join(' ', badges));

        // A choice made is not asked about again.
        known["person"] = rows[0]!["known"]!.Text("personId");
        (await LookAsync(known))[0]!["known"].ShouldBeNull();
    }

    [Fact]
    public async Task Nothing_is_opened_while_it_is_not_said_whether_somebody_is_known_or_stands_in_two_rows()
    {
        using var orla = await firm.As("orla");
        var first = Records.NewHire("Ottilie", "Undecided");
        (await orla.SendAsync("POST", "/api/hires", first.ToJsonString())).StatusCode.ShouldBe(HttpStatusCode.Created);
        // Under way already, and typed again by somebody else.
        var again = Records.NewHire("OTTILIE", "Undecided");
        using (var refused = await orla.SendAsync("POST", "/api/hires", again.ToJsonString()))
            (await refused.ErrorsAsync()).ShouldBe([("/person", "undecided")]);

        JsonObject[] rows = [Records.NewHire("Runa", "Twofold"), Records.NewHire("Runa", "Twofold"), again];
        string Body() => new JsonObject { ["hires"] = new JsonArray([.. rows.Select(h => h.DeepClone())]) }.ToJsonString();
        var seen = (await PreviewAsync())["rows"]!.AsArray();
        seen.Select(r => (int?)r!["twin"]).ShouldBe([null, 0, null]);
        var known = seen[2]!["known"]!.Text("personId");
        using (var refused = await orla.SendAsync("POST", "/api/hires/many", Body()))
            (await refused.ErrorsAsync()).ShouldBe([("/hires/1/person", "twice"), ("/hires/2/person", "undecided")]);
        (await firm.Database.AskAsync("select count(*) from records_now where family_name = 'Twofold'")).ShouldBe(0L);

        rows[1]["notThese"] = new JsonArray(rows[0].Text("id"));
        again["notThese"] = new JsonArray(known);
        seen = (await PreviewAsync())["rows"]!.AsArray();
        seen.ShouldAllBe(r => r!["twin"] == null && r!["known"] == null);
        using var opened = await orla.SendAsync("POST", "/api/hires/many", Body());
        opened.StatusCode.ShouldBe(HttpStatusCode.OK, await opened.Content.ReadAsStringAsync());

        async Task<JsonNode> PreviewAsync()
        {
            using var preview = await orla.SendAsync("POST", "/api/hires/many/preview", Body());
            return await preview.JsonAsync();
        }
    }

    [Fact]
    public async Task Many_are_opened_all_or_none_with_what_is_wrong_at_its_cell()
    {
        using var orla = await firm.As("orla");
        JsonObject[] hires = [Records.NewHire("One", "Grid"), Records.NewHire("Two", "Grid"), Records.NewHire("Three", "Grid")];
        hires[1]["typed"]!["email"] = "no address";
        hires[2]["start"] = null;
        string Body() => new JsonObject { ["hires"] = new JsonArray([.. hires.Select(h => h.DeepClone())]) }.ToJsonString();
        using (var refused = await orla.SendAsync("POST", "/api/hires/many", Body()))
            (await refused.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(["/hires/1/typed/email", "/hires/2/start"], ignoreOrder: true);
        (await firm.Database.AskAsync("select count(*) from records_now where family_name = 'Grid'")).ShouldBe(0L);
        hires[1]["typed"]!["email"] = "two@example.org";
        hires[2]["start"] = "2027-04-05";
        using (var preview = await orla.SendAsync("POST", "/api/hires/many/preview", Body()))
            (await preview.JsonAsync())["rows"]!.AsArray().ShouldAllBe(r => r!["problems"]!.AsArray().Count == 0 && r!["preview"]!["templateName"] != null);
        // Sent twice, opened once.
        for (var i = 0; i < 2; i++)
        {
            using var opened = await orla.SendAsync("POST", "/api/hires/many", Body());
            opened.StatusCode.ShouldBe(HttpStatusCode.OK, await opened.Content.ReadAsStringAsync());
        }
        (await firm.Database.AskAsync("select count(*) || ' ' || count(distinct badge) from records_now where family_name = 'Grid'")).ShouldBe("3 3");
    }

    [Fact]
    public async Task A_start_in_the_past_is_asked_about_once_and_what_was_due_then_is_not_late()
    {
        using var orla = await firm.As("orla");
        var request = Records.NewHire("Past", "Dated");
        request["start"] = "2027-02-15";
        using (var preview = await orla.SendAsync("POST", "/api/hires/preview", request.ToJsonString()))
            (await preview.JsonAsync())["backDated"]!["days"]!.GetValue<int>().ShouldBe(14);
        using (var asked = await orla.SendAsync("POST", "/api/hires", request.ToJsonString()))
            (await asked.ErrorsAsync()).ShouldBe([("/start", "back-dated")]);
        request["backDated"] = true;
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created);
        var checklist = await orla.GetAsync($"/api/hires/{(await opened.JsonAsync())["id"]}");
        var late = checklist["tasks"]!.AsArray().Where(t => t!.Text("state") == "late").ToList();
        late.ShouldNotBeEmpty();
        late.ShouldAllBe(t => t!["beforeKnown"]!.GetValue<bool>());
        // The row says the same as the count: neither what holds it up nor the rope's end is late.
        var row = await FirmFixture.HireAsync(orla, "Dated");
        (
            row["late"]!.GetValue<int>(),
            row["rope"]!["frayed"]!.GetValue<bool>(),
            row["holdUp"]!["beforeKnown"]!.GetValue<bool>(),
            row["holdUp"]!.Text("state")
        ).ShouldBe((0, false, true, "late"));
        (
            await firm.Database.AskAsync(
                "select lower(effective)::text from record_values v join records_now r on r.employment_id = v.owner_id where r.family_name = "
                    + "'Dated' and field = 'pay_rate'"
            )
        ).ShouldBe("2027-02-15");
    }

    [Fact]
    public async Task A_hire_that_comes_to_nothing_leaves_Arrivals_says_what_to_return_and_can_go_on()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Keel");
        var (id, open) = (hire.Text("id"), hire["open"]!.GetValue<int>());
        using (var silent = await orla.SendAsync("PUT", $"/api/hires/{id}/outcome", new { outcome = "noShow", why = " " }))
            (await silent.ErrorsAsync()).ShouldBe([("/why", "missing")]);
        var later = await FirmFixture.HireAsync(orla, "Lind");
        using (var early = await orla.SendAsync("PUT", $"/api/hires/{later["id"]}/outcome", new { outcome = "noShow", why = "Did not come" }))
            (await early.ErrorsAsync()).ShouldBe([("/outcome", "too-early")]);

        using var closed = await orla.SendAsync("PUT", $"/api/hires/{id}/outcome", new { outcome = "noShow", why = new string('x', 500) });
        (await closed.JsonAsync())["toReturn"]!.AsArray().Select(r => r!.Text("field")).ShouldContain("badge");
        (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldAllBe(h => h!.Text("id") != id);
        (await firm.Database.AskAsync($"select count(*) from hire_tasks where hire_id = '{id}' and done is null and skipped_why is null")).ShouldBe(0L);
        (await orla.GetAsync("/api/intake"))["notices"]!
            .AsArray()
            .Where(n => n!.Text("hireId") == id)
            .Select(n => $"{n!.Text("system")} {n!.Text("kind")}")
            .ShouldBe(["payroll noShow", "clocks noShow", "directory noShow"], ignoreOrder: true);

        (await orla.SendAsync("DELETE", $"/api/hires/{id}/outcome")).EnsureSuccessStatusCode();
        (await FirmFixture.HireAsync(orla, "Keel"))["open"]!.GetValue<int>().ShouldBe(open);
        (await orla.GetAsync($"/api/records/{hire["employmentId"]}")).ShouldNotBeNull();
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Two_records_become_one_person_value_by_value_and_two_again()
    {
        using var orla = await firm.As("orla");
        var (kept, other) = (await FirmFixture.HireAsync(orla, "Okafor"), await FirmFixture.HireAsync(orla, "Ferreira"));
        var (one, two) = (kept.Text("employmentId"), other.Text("employmentId"));
        await orla.SaveAsync(two, "former_name", "Ferreira-Okafor");
        using var piet = await firm.As("piet");
        await piet.SaveAsync(
            two,
            new
            {
                changes = new { bank_account = "IE29 AIBK 9311 5212 3456 78" },
                from = (string?)null,
                why = (string?)null,
            }
        );
        var before = await firm.Database.AskAsync(Everyone);
        (await orla.GetAsync($"/api/people/{one}/merge?with={two}"))["values"]!
            .AsArray()
            .Single(v => v!.Text("field") == "given_name")!
            .ToJsonString()
            .ShouldBe("""{"field":"given_name","kept":"Adaeze","other":"Mateo"}""");
        using var merged = await orla.SendAsync(
            "POST",
            $"/api/people/{one}/merge",
            new
            {
                with = two,
                take = new[] { "phone" },
                why = "One person",
            }
        );
        merged.StatusCode.ShouldBe(HttpStatusCode.OK, await merged.Content.ReadAsStringAsync());
        var record = await orla.GetAsync($"/api/records/{two}");
        (Records.Field(record, "given_name").Text("value"), Records.Field(record, "former_name").Text("value")).ShouldBe(("Adaeze", "Ferreira-Okafor"));
        record["otherStints"]!.AsArray().Count.ShouldBe(1);
        using (var shown = await piet.SendAsync("POST", $"/api/records/{one}/fields/bank_account/reveal", new { value = (string?)null }))
            (await shown.Content.ReadAsStringAsync()).ShouldContain("3456");
        using (
            var again = await orla.SendAsync(
                "POST",
                $"/api/people/{one}/merge",
                new
                {
                    with = two,
                    take = Array.Empty<string>(),
                    why = (string?)null,
                }
            )
        )
            (await again.ErrorsAsync()).ShouldBe([("/with", "self")]);
        await firm.EveryProjectionFollowsAsync();

        (await orla.SendAsync("DELETE", $"/api/people/merges/{(await merged.JsonAsync())["id"]}")).EnsureSuccessStatusCode();
        (await firm.Database.AskAsync(Everyone)).ShouldBe(before);
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Somebody_entered_twice_keeps_one_number_in_use_and_one_hire()
    {
        using var orla = await firm.As("orla");
        var (kept, other) = (await FirmFixture.HireAsync(orla, "Okafor"), await FirmFixture.HireAsync(orla, "Ferreira"));
        var (one, two) = (kept.Text("employmentId"), other.Text("employmentId"));
        var compared = await orla.GetAsync($"/api/people/{one}/merge?with={two}");
        // Even of one name, the two are told apart by what each is.
        var stint = compared["otherStints"]!.AsArray().Single()!;
        (stint.Text("number"), stint["goesOn"]!.GetValue<bool>(), stint.Text("hireId")).ShouldBe((other.Text("number"), true, other.Text("id")));
        compared["keptStints"]!.AsArray().Single()!.Text("number").ShouldBe(kept.Text("number"));

        foreach (
            var (close, told) in new (string[], (string, string))[]
            {
                ([Guid.NewGuid().ToString()], ("/close/0", "not-open")),
                ([(await FirmFixture.HireAsync(orla, "Varga")).Text("id")], ("/close/0", "not-open")),
                ([kept.Text("id"), other.Text("id")], ("/close/1", "nothing-left")),
            }
        )
        {
            using var refused = await orla.SendAsync(
                "POST",
                $"/api/people/{one}/merge",
                new
                {
                    with = two,
                    take = Array.Empty<string>(),
                    why = (string?)null,
                    close,
                }
            );
            (await refused.ErrorsAsync()).ShouldBe([told]);
        }
        // What was refused left nothing behind.
        (await orla.GetAsync($"/api/records/{one}"))["otherStints"]!.AsArray().ShouldBeEmpty();

        using var merged = await orla.SendAsync(
            "POST",
            $"/api/people/{one}/merge",
            new
            {
                with = two,
                take = Array.Empty<string>(),
                why = "Entered twice",
                close = new[] { other.Text("id") },
            }
        );
        merged.StatusCode.ShouldBe(HttpStatusCode.OK, await merged.Content.ReadAsStringAsync());
        (await orla.GetAsync("/api/arrivals"))["hires"]!
            .AsArray()
            .Where(h => h!.Text("id") == kept.Text("id") || h!.Text("id") == other.Text("id"))
            .Select(h => h!.Text("id"))
            .ShouldBe([kept.Text("id")]);
        (
            await firm.Database.AskAsync(
                $"""select count(*) from employments e join employments k on k.person_id = e.person_id where k.id = '{one}' and e."end" is null"""
            )
        ).ShouldBe(1L);
        await firm.EveryProjectionFollowsAsync();

        // Parted again, both hires go on as they were.
        (await orla.SendAsync("DELETE", $"/api/people/merges/{(await merged.JsonAsync())["id"]}")).EnsureSuccessStatusCode();
        (await FirmFixture.HireAsync(orla, "Ferreira"))["open"]!.GetValue<int>().ShouldBe(other["open"]!.GetValue<int>());
        await firm.EveryProjectionFollowsAsync();
    }

    private const string Everyone = """
        select string_agg(md5(r.family_name || r.given_name || r.person_id || (select string_agg(field, ' ' order by field) from record_values v
          where v.owner_id in (r.employment_id, r.person_id) and upper_inf(known))), ' ' order by r.employment_id)
        from records_now r where exists (select from hires h where h.employment_id = r.employment_id)
        """;
}
