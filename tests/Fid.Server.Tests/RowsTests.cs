using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What somebody has several of: rows of their record, each value of which is one like any other.</summary>
public class RowsTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_a_template_says_to_hold_and_to_give_stands_in_the_record_of_whom_is_hired_and_says_from_where()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Rowland")).Text("employmentId");
        var record = await orla.GetAsync($"/api/records/{id}");
        var sea = Row(record, "certificates", "Sea survival");
        (Value(sea, "certificates.need"), sea["standing"]!.Text("state")).ShouldBe(("essential", "missing"));
        sea["cells"]![0]!["source"]!.Text("kind").ShouldBe("template");
        Rows(record, "items").Select(r => r["cells"]![0]!.Text("display")).ShouldContain("Life jacket");
        var table = Records.Field(record, "certificates")["rows"]!;
        (table.Text("key"), table.Text("from"), table.Text("until"), table["mayRemove"]!.GetValue<bool>()).ShouldBe(
            ("certificates.kind", "certificates.from", "certificates.until", true)
        );
        await firm.EveryProjectionFollowsAsync();

        // Somebody known is not asked for what they hold already a second time.
        var held = sea.Text("id");
        await orla.SaveAsync(id, Changes(("certificates.from", held, "2026-01-01"), ("certificates.until", held, "2029-12-31")));
        Row(await orla.GetAsync($"/api/records/{id}"), "certificates", "Sea survival")["standing"]!.Text("state").ShouldBe("valid");
    }

    [Fact]
    public async Task However_many_rows_somebody_has_a_field_is_filled_for_one_person()
    {
        using var orla = await firm.As("orla");
        var before = await orla.GetAsync("/api/fields/filled");
        var id = (await orla.OpenAsync("Rowhouse")).Text("employmentId");
        var record = await orla.GetAsync($"/api/records/{id}");
        var after = await orla.GetAsync("/api/fields/filled");
        // Rows of the person, and rows of the stint.
        foreach (var field in new[] { "certificates", "items" })
        {
            Rows(record, field).Count.ShouldBeGreaterThan(1, field);
            (after["filled"]![field]!.GetValue<int>() - (before["filled"]![field]?.GetValue<int>() ?? 0)).ShouldBe(1, field);
        }
        (after["active"]!.GetValue<int>() - before["active"]!.GetValue<int>()).ShouldBe(1);
    }

    [Fact]
    public async Task A_row_is_added_changed_and_taken_away_and_each_of_that_stands_in_the_history_and_is_taken_back()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Rowntree")).Text("employmentId");
        var row = Guid.NewGuid().ToString();
        await orla.SaveAsync(
            id,
            Changes(("certificates.kind", row, "AID"), ("certificates.number", row, "  FA 7 "), ("certificates.until", row, "2027-03-31"))
        );
        var there = Rows(await orla.GetAsync($"/api/records/{id}"), "certificates").Single(r => r.Text("id") == row);
        (Value(there, "certificates.number"), there["standing"]!.Text("state")).ShouldBe(("FA 7", "expiring"));
        await orla.SaveAsync(id, Changes(("certificates.number", row, "FA 8")));

        var history = await orla.GetAsync($"/api/records/{id}/history");
        history["values"]!
            .AsArray()
            .Where(v => v!.Text("field") == $"certificates.number@{row}")
            .Select(v => (v!["label"]!.Text("en"), v!.Text("value"), v!["knownTo"] is null))
            .ShouldBe([("Certificates: Number (First aid)", "FA 7", false), ("Certificates: Number (First aid)", "FA 8", true)]);
        var change = history["changes"]![0]!;
        change["fields"]!.AsArray().Select(f => (string)f!).ShouldBe([$"certificates.number@{row}"]);

        await orla.SaveAsync(
            id,
            new
            {
                changes = new Dictionary<string, object?> { [$"certificates@{row}"] = null },
                from = (string?)null,
                why = (string?)null,
            }
        );
        Rows(await orla.GetAsync($"/api/records/{id}"), "certificates").ShouldNotContain(r => r.Text("id") == row);
        var gone = (await orla.GetAsync($"/api/records/{id}/history"))["changes"]![0]!;
        gone["fields"]!.AsArray().Count.ShouldBe(3);
        (await orla.SendAsync("POST", $"/api/records/{id}/changes/{gone["id"]}/take-back", new { why = "Held after all" })).EnsureSuccessStatusCode();
        Value(Rows(await orla.GetAsync($"/api/records/{id}"), "certificates").Single(r => r.Text("id") == row), "certificates.number").ShouldBe("FA 8");
        (await firm.Database.AskAsync($"select count(distinct owner_kind) from record_values where row_id = '{row}' and person_id = owner_id")).ShouldBe(1L);
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task What_cannot_stand_in_a_row_is_told_at_its_cell_and_nothing_of_the_save_is_kept()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var id = (await orla.OpenAsync("Rowley")).Text("employmentId");
        var row = Guid.NewGuid().ToString();
        var before = await firm.Database.AskAsync("select count(*) from record_values");
        foreach (
            var (changes, errors) in new (Dictionary<string, object?>, string[])[]
            {
                (Said(("certificates.number", row, "7")), [$"certificates.kind@{row} missing"]),
                (
                    Said(("certificates.kind", row, "SEA"), ("certificates.from", row, "2027-02-01"), ("certificates.until", row, "2027-01-31")),
                    [$"certificates.until@{row} not-in-order"]
                ),
                (Said(("certificates.kind", row, "no such")), [$"certificates.kind@{row} unknown-entry"]),
                (Said(("certificates.kind", row, "SEA"), ("certificates.until", row, "soon")), [$"certificates.until@{row} bad-value"]),
                (Said(("items.item", row, "LIFEJACKET"), ("items.quantity", row, 0)), [$"items.quantity@{row} out-of-range"]),
                (Said(("certificates.nothing", row, "7")), [$"certificates.nothing@{row} unknown-field"]),
                (new() { ["certificates.kind"] = "SEA" }, ["certificates.kind unknown-field"]),
                (new() { ["certificates.kind@row"] = "SEA" }, ["certificates.kind@row unknown-field"]),
                (new() { [$"site@{row}"] = "skerry" }, [$"site@{row} unknown-field"]),
                (new() { ["certificates"] = new[] { "SEA" } }, ["certificates wrong-type"]),
                (new() { [$"certificates@{row}"] = "SEA" }, [$"certificates@{row} unknown-field"]),
            }
        )
        {
            using var refused = await orla.ChangeAsync(id, Body(changes));
            (await refused.ErrorsAsync()).Select(e => $"{e.Pointer["/changes/".Length..]} {e.Code}").ShouldBe(errors);
        }
        // Payroll sees certificates and changes none; a row of which they may not change all goes with nothing.
        var sea = Row(await orla.GetAsync($"/api/records/{id}"), "certificates", "Sea survival").Text("id");
        using (var refused = await ruth.ChangeAsync(id, Body(Said(("certificates.number", sea, "7")))))
            (await refused.ErrorsAsync()).ShouldBe([($"/changes/certificates.number@{sea}", "read-only")]);
        using (var refused = await ruth.ChangeAsync(id, Body(new() { [$"certificates@{sea}"] = null })))
            (await refused.ErrorsAsync()).Select(e => e.Code).Distinct().ShouldBe(["read-only"]);
        Records.Field(await ruth.GetAsync($"/api/records/{id}"), "certificates")["rows"]!["mayRemove"]!.GetValue<bool>().ShouldBeFalse();
        (await firm.Database.AskAsync("select count(*) from record_values")).ShouldBe(before);
    }

    [Fact]
    public async Task A_scan_in_a_row_is_kept_and_shown_there_and_in_no_other_record()
    {
        using var orla = await firm.As("orla");
        var (id, other) = ((await orla.OpenAsync("Rowell")).Text("employmentId"), await orla.PersonAsync("Prys"));
        using var sent = await orla.SendFileAsync(
            "/api/files?fileName=ticket.png&field=certificates.file",
            [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3]
        );
        var file = (await sent.JsonAsync()).Text("id");
        var sea = Row(await orla.GetAsync($"/api/records/{id}"), "certificates", "Sea survival").Text("id");
        await orla.SaveAsync(id, Changes(("certificates.file", sea, file)));
        var path = $"/api/records/{id}/fields/certificates.file@{sea}/file?file={file}";
        (await orla.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await orla.SendAsync("GET", path.Replace(sea, Guid.NewGuid().ToString(), StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using (var taken = await orla.ChangeAsync(other, Body(Said(("certificates.kind", sea, "SEA"), ("certificates.file", sea, file)))))
            (await taken.ErrorsAsync()).ShouldBe([($"/changes/certificates.file@{sea}", "unknown-file")]);
        await firm.Database.AskAsync("set session_replication_role = replica; update stored_files set at = at - interval '3 days'");
        await using var acts = new ActCaller(firm.Server);
        await acts.Get<Fid.Acts.Work.ClearUp>().DoAsync(new Fid.Acts.Work.ClearUpRequest(), await acts.AsFidAsync("clearing"), default);
        (await orla.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Columns_are_sealed_unique_and_computed_as_fields_are_and_people_are_found_by_what_stands_in_them()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.DeepClone().AsObject();
        configuration["fields"]!
            .AsArray()
            .Add(
                JsonNode.Parse(
                    """
                    {"key":"tokens","label":"Tokens","section":"items","type":"rows","rowKey":"name",
                    "access":{"coordinator":"edit","administrator":"edit","payroll":"view"},
                    "columns":[{"key":"name","label":"Name","type":"text","required":"always"},
                      {"key":"secret","label":"Secret","type":"identifier","sensitive":true,"access":{"coordinator":"edit","administrator":"edit"}},
                      {"key":"serial","label":"Serial","type":"text","unique":true},
                      {"key":"kind","label":"Kind","type":"text","default":{"formula":"'key of ' + family_name"}},
                      {"key":"title","label":"Title","type":"computed","default":{"formula":"name + ', ' + serial"}}]}
                    """
                )
            );
        await Markers.PublishAsync(piet, orla, configuration);
        var (id, other) = ((await orla.OpenAsync("Rowbotham")).Text("employmentId"), await orla.PersonAsync("Prys"));
        var row = Guid.NewGuid().ToString();
        await orla.SaveAsync(id, Changes(("tokens.name", row, "bank"), ("tokens.secret", row, "KX-99-17-42"), ("tokens.serial", row, "S1234567")));
        var record = await orla.GetAsync($"/api/records/{id}");
        var stored = Rows(record, "tokens").Single();
        (Value(stored, "tokens.secret"), Value(stored, "tokens.kind"), Value(stored, "tokens.title")).ShouldBe(
            ("••••••", "key of Rowbotham", "bank, S1234567")
        );
        (await firm.Database.AskAsync("select count(*) from record_values v where v::text ~ '99.?17.?42'")).ShouldBe(0L);
        using (var shown = await orla.SendAsync("POST", $"/api/records/{id}/fields/tokens.secret@{row}/reveal", new { value = (string?)null }))
            ((string)(await shown.JsonAsync())["value"]!).ShouldBe("KX-99-17-42");
        (await orla.SendAsync("POST", $"/api/records/{id}/fields/tokens.secret@{Guid.NewGuid()}/reveal", new { value = (string?)null })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        // What only one may have.
        using (var taken = await orla.ChangeAsync(other, Body(Said(("tokens.name", row, "bank"), ("tokens.serial", row, "S1234567")))))
            (await taken.ErrorsAsync()).ShouldBe([($"/changes/tokens.serial@{row}", "not-unique")]);
        using (var mistake = await orla.ChangeAsync(id, Body(Said(("tokens.title", row, "mine")))))
            (await mistake.ErrorsAsync()).Select(e => e.Code).ShouldBe(["read-only"]);
        // By the serial number, whole and however it is capitalised; by the secret only to whom it shows.
        using var ruth = await firm.As("ruth");
        foreach (
            var (caller, typed, found) in new[]
            {
                (orla, "s1234567", true),
                (orla, "S123456", false),
                (orla, "kx991742", true),
                (ruth, "S1234567", true),
                (ruth, "KX-99-17-42", false),
            }
        )
            (await caller.GetAsync($"/api/people?q={typed}"))["people"]!.AsArray().Any(p => p!.Text("employmentId") == id).ShouldBe(found, typed);
        // Another's row does not open with this one's seal.
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Rows_go_out_by_sheet_and_come_back_changed_and_with_new_ones_and_are_taken_out_again()
    {
        using var orla = await firm.As("orla");
        var hire = await orla.OpenAsync("Rowe");
        var (id, number) = (hire.Text("employmentId"), hire.Text("number"));
        // A list of the firm may be called as the rows are.
        (await orla.GetAsync("/api/imports/targets"))
            .AsArray()
            .Where(t => t!.Text("key").EndsWith("certificates", StringComparison.Ordinal))
            .Select(t => t!["label"]!.Text("en"))
            .ShouldBe(["Certificates", "People: Certificates"]);
        var lines = Fid.Acts.Exchange.SheetFile.Rows(() => new MemoryStream(orla.BytesAsync("/api/people/rows/certificates/sheet.xlsx").Result)).ToList();
        lines[0].Take(3).ShouldBe(["Employee number", "Row", "Certificate"]);
        var mine = lines.Where(l => l[0] == number).ToList();
        mine.Count.ShouldBe(3);
        var sea = mine.Single(l => l[2] == "SEA");
        var run = await orla.ImportAsync(
            "people.certificates",
            $"""
            Employee number,Row,Certificate,Number,From,Until
            {number},{sea[1]},SEA,S-1,2027-01-01,2028-12-31
            {number},,MED,M-1,2027-02-01,
            {number},,AID,F-1,2027-02-13,2027-02-13
            {number},,AID,F-1,2027-02-13,
            {number},,,F-2,,
            {number},{Guid.NewGuid()},SEA,,,
            nobody,,SEA,,,
            {number},,RADIO,,,
            {number},{sea[1]},SEA,S-2,,
            """
        );
        run.Counts().ShouldBe([1, 2, 1, 5, 0], run.ToJsonString());
        (await orla.RowsAsync(run, "wrong"))
            .Select(r => $"{r["problems"]![0]!.Text("column")} {r["problems"]![0]!.Text("code")}")
            .ShouldBe(["kind duplicate-code", "kind missing", "row_id unknown-row", "code unknown-person", "row_id duplicate-code"]);
        (await orla.RowsAsync(run, "changed"))[0]["changes"]!
            .AsArray()
            .Select(c => $"{c!.Text("column")} {c!.Text("after")}")
            .ShouldBe(["number S-1", "from 2027-01-01", "until 2028-12-31"], ignoreOrder: true);
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = true });
        (run.Text("state"), run["failure"]).ShouldBe(("committed", null));
        var record = await orla.GetAsync($"/api/records/{id}");
        Rows(record, "certificates").Count.ShouldBe(4);
        Value(Row(record, "certificates", "Medical fitness"), "certificates.number").ShouldBe("M-1");
        (await firm.Database.AskAsync($"select count(*) from changes where part = '{run.Text("id")}' and action = 'record.fixed'")).ShouldBe(1L);

        run = await orla.OnAsync(run, "POST", "undo");
        run.Text("state").ShouldBe("undone");
        Rows(await orla.GetAsync($"/api/records/{id}"), "certificates").Count.ShouldBe(3);
        // What it holds is for nobody but who sent it; payroll, who changes no certificates, sends none.
        using var piet = await firm.As("piet");
        (await piet.SendAsync("GET", $"/api/imports/{run["id"]}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var callum = await firm.As("callum");
        (await callum.SendAsync("GET", "/api/people/rows/certificates/sheet.xlsx")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await orla.SendAsync("GET", "/api/people/rows/site/sheet.xlsx")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await firm.EveryProjectionFollowsAsync();
    }

    private static List<JsonNode> Rows(JsonNode record, string field) => [.. Records.Field(record, field)["rows"]!["rows"]!.AsArray().Select(r => r!)];

    private static JsonNode Row(JsonNode record, string field, string about) => Rows(record, field).Single(r => (string?)r["cells"]![0]!["display"] == about);

    private static string? Value(JsonNode row, string column) =>
        row["cells"]!.AsArray().FirstOrDefault(c => c!.Text("key").StartsWith(column + "@", StringComparison.Ordinal))?["value"]?.ToString();

    private static Dictionary<string, object?> Said(params (string Column, string Row, object? Value)[] cells) =>
        cells.ToDictionary(c => $"{c.Column}@{c.Row}", c => c.Value);

    private static object Changes(params (string Column, string Row, object? Value)[] cells) => Body(Said(cells));

    private static object Body(Dictionary<string, object?> changes) =>
        new
        {
            changes,
            from = (string?)null,
            why = (string?)null,
        };
}
