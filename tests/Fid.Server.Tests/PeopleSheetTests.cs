using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Exchange;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>People's records out as a sheet, and in again through an import.</summary>
public class PeopleSheetTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    public async Task Everybody_s_sheet_comes_back_as_it_went_out(string language)
    {
        using var orla = await firm.As("orla");
        var file = await orla.BytesAsync($"/api/people/sheet.xlsx?language={language}");
        var rows = SheetFile.Rows(() => new MemoryStream(file)).ToList();
        rows.Count.ShouldBe(
            1 + Convert.ToInt32(await firm.Database.AskAsync("""select count(*) from employments where "end" is null or "end" >= '2027-03-01'"""), null)
        );
        var run = await orla.ImportAsync("people", file, "people.xlsx");
        run["columns"]!.AsArray().ShouldAllBe(c => (string)c! != "");
        run.Counts().ShouldBe([0, 0, rows.Count - 1, 0, 0], run.ToJsonString());
    }

    [Fact]
    public async Task Rows_change_records_from_a_day_by_rules_as_a_save_does_and_are_taken_back_together()
    {
        using var orla = await firm.As("orla");
        var (one, two) = ((await orla.GetAsync("/api/people?q="))["people"]![3]!, (await orla.GetAsync("/api/people?q="))["people"]![4]!);
        var before = await firm.Database.AskAsync(Believed);
        var run = await orla.ImportAsync(
            "people",
            $"Personalnummer;Work phone;pension;Holiday calendar;Manager\n{one.Text("number")};+353 1 555 0199;ja;Sound, "
                + $"islands;{two.Text("number")}\n{two.Text("number")};+353 1 555 0198;;;\n"
        );
        run.Counts().ShouldBe([0, 2, 0, 0, 0], run.ToJsonString());
        run = await orla.OnAsync(
            run,
            "PUT",
            "matching",
            new
            {
                columns = run["columns"]!.AsArray().Select(c => (string)c!),
                dates = (string?)null,
                @decimal = ".",
                emptyClears = false,
                holdsFrom = "2027-04-01",
            }
        );
        (await orla.RowsAsync(run, "changed"))[0]["changes"]!.AsArray().Single(c => c!.Text("column") == "manager")!.Text("after").ShouldBe(two.Text("number"));
        (await firm.Database.AskAsync(Believed)).ShouldBe(before);

        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (run.Text("state"), run["failure"]).ShouldBe(("committed", null));
        var record = await orla.GetAsync($"/api/records/{one.Text("employmentId")}");
        var coming = Records.Field(record, "work_phone")["coming"]![0]!;
        (coming.Text("from"), coming.Text("value")).ShouldBe(("2027-04-01", "+353 1 555 0199"));
        Records.Field(record, "holiday_calendar")["coming"]!
            .AsArray()
            .Select(c => c!.Text("value"))
            .ShouldBe(["islands"], customMessage: record.ToJsonString());
        var history = await orla.GetAsync($"/api/records/{one.Text("employmentId")}/history");
        (history["changes"]![0]!.Text("origin"), history["changes"]![0]!.Text("why")).ShouldBe(("exchange", "sheet.csv"));

        run = await orla.OnAsync(run, "POST", "undo");
        run.Text("state").ShouldBe("undone");
        (await firm.Database.AskAsync(Believed)).ShouldBe(before);
    }

    [Fact]
    public async Task Rows_of_two_stints_of_one_person_leave_both_showing_what_the_last_of_them_says()
    {
        using var orla = await firm.As("orla");
        var person = await firm.Database.AskAsync("select person_id from employments group by 1 having count(*) > 1 limit 1");
        var numbers = (
            (string)(await firm.Database.AskAsync($"select string_agg(number, ' ' order by number) from employments where person_id = '{person}'"))!
        ).Split(' ');
        var run = await orla.ImportAsync("people", "Employee number,Family name\n" + string.Join('\n', numbers.Select((n, i) => $"{n},Renamed{i}")) + "\n");
        run.Counts().ShouldBe([0, numbers.Length, 0, 0, 0], run.ToJsonString());
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = false })).Text("state").ShouldBe("committed");
        (await firm.Database.AskAsync($"select string_agg(distinct r.family_name, ' ') from records_now r where r.person_id = '{person}'")).ShouldBe(
            $"Renamed{numbers.Length - 1}"
        );
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task A_row_says_at_its_cell_what_is_wrong_and_one_that_was_changed_since_is_looked_at_once_more()
    {
        using var orla = await firm.As("orla");
        var people = (await orla.GetAsync("/api/people?q="))["people"]!.AsArray();
        string Number(int at) => people[at]!.Text("number");
        await PublishUniqueBadgesAsync();
        var badge = Convert.ToString(
            await firm.Database.AskAsync(
                """select value #>> array[]::text[] from record_values where field = 'badge' and upper_inf(known) and owner_id <> """
                    + $"""'{people[6]!.Text("employmentId")}' limit 1"""
            ),
            null
        );
        var run = await orla.ImportAsync(
            "people",
            "Employee number,Site,Badge,Manager,Start date,Family name\n"
                + $"{Number(6)},Skerry Peer,{badge},{Number(6)},2001-01-01,x\nnobody,,,,,\n{Number(7)},,,,,Renamed\n{Number(7)},,,,,Twice\n,,,,,x\n"
        );
        run.Counts().ShouldBe([0, 1, 0, 4, 0], run.ToJsonString());
        var wrong = await orla.RowsAsync(run, "wrong");
        wrong[0]["problems"]!
            .AsArray()
            .Select(p => (p!.Text("column"), p!.Text("code")))
            .ShouldBe([("site", "unknown-entry"), ("badge", "not-unique"), ("manager", "self"), ("start_date", "read-only")], ignoreOrder: true);
        wrong[0]["problems"]!.AsArray().Single(p => p!.Text("column") == "site")!.Text("suggestion").ShouldBe("skerry");
        wrong.Skip(1).Select(r => r["problems"]![0]!.Text("code")).ShouldBe(["unknown-person", "duplicate-code", "missing"]);

        await orla.SaveAsync(people[7]!.Text("employmentId"), "family_name", "Meanwhile");
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = true });
        (run.Text("state"), run.Text("failure")).ShouldBe(("ready", "meanwhile"));
        (await orla.RowsAsync(run, "changed")).Single()["changes"]![0]!.Text("before").ShouldBe("Meanwhile");
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = true })).Text("state").ShouldBe("committed");
        // Who changes the record again stands in the way of the undo.
        await orla.SaveAsync(people[7]!.Text("employmentId"), "family_name", "After");
        (await orla.OnAsync(run, "POST", "undo")).Text("failure").ShouldBe("changed:" + Number(7));

        // What somebody sent is for nobody else's eyes: another may see less.
        using var piet = await firm.As("piet");
        using var hidden = await piet.SendAsync("GET", $"/api/imports/{run.Text("id")}/rows");
        hidden.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_row_with_a_role_template_opens_a_hire_as_one_typed_by_hand_is()
    {
        using var orla = await firm.As("orla");
        var empty = SheetFile.Rows(await Opened(orla, "/api/people/sheet.xlsx?empty=true")).Single();
        empty.ShouldContain("Role template");
        var run = await orla.ImportAsync(
            "people",
            "Role template;Start;Given name;Family name;E-mail;Site\n"
                + "Deckhand;2027-05-03;Ama;Osei;ama.osei@example.org;Skerry Pier\ndeckhand;2027-05-03;Bo;Lund;bo.lund@example.org;skerry\n"
                + "Deckhand;;Cy;Late;cy@example.org;skerry\nBosun of the moon;2027-05-03;Di;None;di@example.org;skerry\nTicket clerk;2027-05-03;;Nameless;;\n"
        );
        run.Counts().ShouldBe([2, 0, 0, 3, 0], run.ToJsonString());
        (await orla.RowsAsync(run, "wrong"))
            .Select(r => r["problems"]!.AsArray().Select(p => $"{p!.Text("column")} {p!.Text("code")}").Order(StringComparer.Ordinal).First())
            .ShouldBe(["start_date missing", "role_template unknown-template", "email missing"]);

        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = true });
        (run.Text("state"), run["failure"]).ShouldBe(("committed", null));
        var hires = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Where(h => h!.Text("familyName") is "Osei" or "Lund").ToList();
        hires.Count.ShouldBe(2);
        var records = new List<JsonNode>();
        foreach (var hire in hires)
            records.Add(await orla.GetAsync($"/api/records/{hire!.Text("employmentId")}"));
        records.Select(r => (r.Text("job"), r.Text("site"), r.Text("start"))).Distinct().ShouldBe([("Deckhand", "Skerry Pier", "2027-05-03")]);
        // Each has a badge of its own, and what the site's add-on and the site itself give.
        records.Select(r => Records.Field(r, "badge")["value"]!.ToString()).Distinct().Count().ShouldBe(2);
        records.ShouldAllBe(r => Records.Field(r, "holiday_calendar")["value"]!.ToString() == "islands");
        (await orla.GetAsync($"/api/hires/{hires[0]!.Text("id")}"))["tasks"]!.AsArray().Count.ShouldBeGreaterThan(20);

        // As long as nobody has worked on them they come to nothing again, all or none.
        var first = hires[0]!;
        (await orla.SendAsync("PUT", $"/api/hires/{first.Text("id")}/tasks/radio-order/done", new { done = (string?)null })).EnsureSuccessStatusCode();
        (await orla.OnAsync(run, "POST", "undo")).Text("failure").ShouldBe("changed:" + records[0].Text("number"));
        (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Count(h => h!.Text("familyName") is "Osei" or "Lund").ShouldBe(2);
    }

    [Fact]
    public async Task Hires_opened_from_a_sheet_and_left_alone_come_to_nothing_again()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync(
            "people",
            "Role template,Given name,Family name,E-mail,Start "
                + "date,Site\nDeckhand,Uma,Undone,uma@example.org,2027-05-03,skerry\nDeckhand,Ugo,Undone,ugo@example.org,2027-05-03,skerry\n"
        );
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (await OpenAsync()).ShouldBe(2L);
        run = await orla.OnAsync(run, "POST", "undo");
        (run.Text("state"), await OpenAsync()).ShouldBe(("undone", 0L));
        (
            await firm.Database.AskAsync(
                "select string_agg(distinct outcome || ' ' || outcome_why, '; ') from hires h join records_now r using (employment_id) where "
                    + "family_name = 'Undone'"
            )
        ).ShouldBe("Withdrawn sheet.csv");

        async Task<object?> OpenAsync() =>
            await firm.Database.AskAsync(
                "select count(*) from hires h join records_now r using (employment_id) where family_name = 'Undone' and closed is null"
            );
    }

    [Fact]
    public async Task Somebody_who_comes_back_may_have_their_badge_again_and_nobody_else_may()
    {
        using var orla = await firm.As("orla");
        await PublishUniqueBadgesAsync();
        var gone = await orla.PersonAsync("Moutinho");
        await orla.SaveAsync(gone, "badge", "770077");
        await orla.SaveAsync(gone, "end_date", "2027-02-26");
        var number = (await orla.GetAsync($"/api/records/{gone}")).Text("number");
        var run = await orla.ImportAsync(
            "people",
            "Employee number,Role template,Given name,Family name,E-mail,Start date,Site,Badge\n"
                + $"{number},Deckhand,Beatriz,Moutinho,back@example.org,2027-05-03,skerry,770077\n"
                + ",Deckhand,Rieke,Stranger,rieke@example.org,2027-05-03,skerry,770077\n"
        );
        run.Counts().ShouldBe([1, 0, 0, 1, 0], run.ToJsonString());
        (await orla.RowsAsync(run, "wrong"))[0]["problems"]!.AsArray().Select(p => (p!.Text("column"), p!.Text("code"))).ShouldBe([("badge", "not-unique")]);
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = true })).Text("state").ShouldBe("committed");
    }

    [Fact]
    public async Task Of_a_row_that_may_be_somebody_known_or_of_another_row_it_is_asked_who_it_is()
    {
        using var orla = await firm.As("orla");
        var gone = await orla.PersonAsync("Hauge");
        await orla.SaveAsync(gone, "end_date", "2027-02-26");
        var left = await orla.GetAsync($"/api/records/{gone}");
        var number = left.Text("number");
        var here = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Select(h => h!).First(h => h.Text("familyName") == "Varga");
        var record = await orla.GetAsync($"/api/records/{here.Text("employmentId")}");
        var email = Records.Field(record, "email").Text("value");
        // Without a column for the number, since nobody thought of one; whoever is under way already is known as well.
        var run = await orla.ImportAsync(
            "people",
            "Role template,Given name,Family name,E-mail,Start date,Site\n"
                + $"Deckhand,{left.Text("givenName")},{left.Text("familyName")},{Records.Field(left, "email").Text("value")},2027-05-03,skerry\n"
                + $"Deckhand,{here.Text("givenName")},{here.Text("familyName")},{email},2027-05-03,skerry\n"
                + "Deckhand,Tove,Twice,tove@example.org,2027-05-03,skerry\nDeckhand,TOVE,TWICE,tove@example.org,2027-05-10,skerry\n"
        );
        run.Counts().ShouldBe([1, 0, 0, 3, 0], run.ToJsonString());
        var (wrong, at) = (await orla.RowsAsync(run, "wrong"), run["columns"]!.AsArray().Count - 1);
        wrong
            .Select(r =>
                (
                    r["number"]!.GetValue<int>(),
                    r["problems"]![0]!.Text("code"),
                    r["problems"]![0]!["at"]!.GetValue<int>(),
                    r["problems"]![0]!.Text("suggestion")
                )
            )
            .ShouldBe([(1, "already-known", at, "new"), (2, "already-known", at, "new"), (4, "twice", at, "new")]);
        wrong[0]["problems"]![0]!.Text("detail").ShouldStartWith($"This may be {number}, who was here before.");
        wrong[1]["problems"]![0]!.Text("detail").ShouldStartWith($"This may be {record.Text("number")}, who works here");

        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 1,
                column = at,
                text = number,
                allLike = false,
            }
        );
        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 2,
                column = at,
                text = record.Text("number"),
                allLike = false,
            }
        );
        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 4,
                column = at,
                text = "neu",
                allLike = false,
            }
        );
        // A second stint beside one that goes on is not opened from a sheet.
        (await orla.RowsAsync(run, "wrong")).Select(r => (r["number"]!.GetValue<int>(), r["problems"]![0]!.Text("code"))).ShouldBe([(2, "works-here")]);
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = true });
        run.Text("state").ShouldBe("committed");
        (await firm.Database.AskAsync("select count(distinct person_id) from records_now where family_name ilike 'twice'")).ShouldBe(2L);
        (
            await firm.Database.AskAsync($"select count(*) from employments where person_id = (select person_id from employments where number = '{number}')")
        ).ShouldBe(2L);
    }

    private static async Task<Func<Stream>> Opened(Caller caller, string path)
    {
        var file = await caller.BytesAsync(path);
        return () => new MemoryStream(file);
    }

    private async Task PublishUniqueBadgesAsync()
    {
        using var piet = await firm.As("piet");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "badge")!["unique"] = true;
        var draft = await (
            await piet.SendAsync("PUT", "/api/fields/draft", new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString())
        ).JsonAsync();
        (
            await piet.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version"))
        ).EnsureSuccessStatusCode();
    }

    private const string Believed =
        "select md5(string_agg(owner_id || field || value::text || effective::text, ',' order by owner_id, field, row_id, effective)) from "
        + "record_values where upper_inf(known)";
}
