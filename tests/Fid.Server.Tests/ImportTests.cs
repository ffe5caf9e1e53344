using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Fid.Acts.Exchange;
using Fid.Core.Lists;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Filling lists from sheets, from the upload to undoing it.</summary>
public class ImportTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Nothing_changes_before_it_is_committed_and_the_whole_of_it_can_be_undone()
    {
        using var orla = await firm.As("orla");
        var before = await firm.Database.AskAsync("select md5(string_agg(list_entries::text, '' order by id)) from list_entries where list = 'jobs'");
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var run = await orla.ImportAsync(
            "jobs",
            Encoding
                .GetEncoding(1252)
                .GetBytes("Job code;Titel;Stufe;Überstunden\n dk-2;Decksmatrose;C2;bezahlt\nUN-1;Größter;c3;Freizeit\nDK-4;;;\nEXAMPLE-7;x;x;x\n"),
            "jobs.csv"
        );
        (run.Text("state"), run["columns"]!.ToJsonString()).ShouldBe(("ready", """["code","name","grade","overtime"]"""));
        run.Counts().ShouldBe([1, 1, 1, 0, 1]);
        (await orla.RowsAsync(run, "changed")).Single()["changes"]!
            .ToJsonString()
            .ShouldBe("""[{"at":1,"column":"name","before":"Deckhand","after":"Decksmatrose"}]""");
        (await firm.Database.AskAsync("select md5(string_agg(list_entries::text, '' order by id)) from list_entries where list = 'jobs'")).ShouldBe(before);

        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = false })).Text("state").ShouldBe("committed");
        (await orla.GetAsync("/api/lists/jobs/entries/un-1")).Text("name").ShouldBe("Größter");
        var changed = await orla.GetAsync("/api/lists/jobs/entries/DK-2");
        (changed.Text("name"), changed["values"]!["items"]!.AsArray().Count).ShouldBe(("Decksmatrose", 4)); // what the sheet does not have stays
        (await orla.GetAsync("/api/lists/jobs/entries/DK-2/history"))[0]!.Text("action").ShouldBe("import.committed");

        (await orla.OnAsync(run, "POST", "undo")).Text("state").ShouldBe("undone");
        (await firm.Database.AskAsync("select md5(string_agg(list_entries::text, '' order by id)) from list_entries where list = 'jobs'")).ShouldBe(before);
        using var again = await orla.SendAsync("POST", $"/api/imports/{run.Text("id")}/undo");
        again.StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_mistake_names_the_nearest_entry_and_is_mended_for_all_rows_like_it()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("jobs", "Code,Name,Grade\nM-1,One,C-2\nM-2,Two,C-2\nM-3,Three,zzzzzz\nM-1,Again,C1\n");
        run.Counts().ShouldBe([0, 0, 0, 4, 0]);
        var rows = await orla.RowsAsync(run, "wrong");
        rows.Select(r => (r["problems"]![0]!.Text("code"), (string?)r["problems"]![0]!["suggestion"]))
            .ShouldBe([("unknown-entry", "C2"), ("unknown-entry", "C2"), ("unknown-entry", null), ("duplicate-code", null)]);
        using (var early = await orla.SendAsync("POST", $"/api/imports/{run.Text("id")}/commit", new { onlyGood = false }))
            early.StatusCode.ShouldBe(HttpStatusCode.Conflict);

        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 1,
                column = 2,
                text = "C2",
                allLike = true,
            }
        );
        run.Counts().ShouldBe([2, 0, 0, 2, 0]);
        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 4,
                column = 0,
                text = "M-4",
                allLike = false,
            }
        );
        run.Counts().ShouldBe([3, 0, 0, 1, 0]);
        var rest = SheetFile.Rows(await Opened(orla, run)).ToArray();
        rest[0].ShouldBe(["Code", "Name", "Grade", "Why"]);
        rest[1][..3].ShouldBe(["M-3", "Three", "zzzzzz"]);
        rest[1][3].ShouldContain("There is no entry “zzzzzz”");
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = true })).Text("state").ShouldBe("committed");
        (await firm.Database.AskAsync("select string_agg(code || (values ->> 'grade'), ' ' order by code) from list_entries where code like 'M-_'")).ShouldBe(
            "M-1C2 M-2C2 M-4C1"
        );
    }

    [Fact]
    public async Task The_matching_is_shown_corrected_and_remembered_by_its_headers()
    {
        using var orla = await firm.As("orla");
        const string Sheet = "Ident,Wording,Nonsense\nT-1,Team one,x\n";
        var run = await orla.ImportAsync("teams", Sheet);
        run["columns"]!.ToJsonString().ShouldBe("""["","",""]""");
        using (
            var twice = await orla.SendAsync(
                "PUT",
                $"/api/imports/{run.Text("id")}/matching",
                new
                {
                    columns = new[] { "code", "code", "" },
                    dates = (string?)null,
                    @decimal = ".",
                    emptyClears = false,
                }
            )
        )
            (await twice.ErrorsAsync()).ShouldBe([("/columns/1", "duplicate-column")]);
        run = await orla.OnAsync(
            run,
            "PUT",
            "matching",
            new
            {
                columns = new[] { "code", "name", "" },
                dates = (string?)null,
                @decimal = ".",
                emptyClears = false,
            }
        );
        run.Counts().ShouldBe([1, 0, 0, 0, 0]);
        await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        var later = await orla.ImportAsync("teams", Sheet.Replace("T-1", "T-2", StringComparison.Ordinal));
        later["matchedBy"]!.ToJsonString().ShouldBe("""["Memory","Memory","Nothing"]""");
    }

    [Fact]
    public async Task Dates_that_can_be_read_two_ways_are_asked_about()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync(
            "payGroups",
            "Code;Name;Paid every;First period begins;Holiday calendar;Cut-off, working days before\nA;A;week;3/4/2027;sound;2\nB;B;week;5/4/2027;sound;2\n"
        );
        (run["askDates"]!.GetValue<bool>(), run.Counts()[0]).ShouldBe((true, 2));
        using (var early = await orla.SendAsync("POST", $"/api/imports/{run.Text("id")}/commit", new { onlyGood = false }))
            early.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        run = await orla.OnAsync(
            run,
            "PUT",
            "matching",
            new
            {
                columns = run["columns"]!.AsArray().Select(c => (string)c!),
                dates = "monthDayYear",
                @decimal = ".",
                emptyClears = false,
            }
        );
        await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (await orla.GetAsync("/api/lists/payGroups/entries/A"))["values"]!.Text("first_period_start").ShouldBe("2027-03-04");
    }

    [Fact]
    public async Task Rows_that_need_each_other_stand_or_fall_together_in_whatever_order()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("departments", "Code,Name,Part of\nw3,Three,w2\nw1,One,office\nw2,Two,w1\nr1,Ring,r2\nr2,Ring,r1\nz1,Under ring,r1\n");
        run.Counts().ShouldBe([3, 0, 0, 3, 0]);
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = true })).Text("state").ShouldBe("committed");
        (await orla.OnAsync(run, "POST", "undo")).Text("state").ShouldBe("undone");
    }

    [Fact]
    public async Task What_is_used_or_was_changed_since_is_not_undone()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("grades", "Code,Name\nG-1,One\nG-2,Two\n");
        await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/jobs/entries",
                new
                {
                    code = "USES-G1",
                    name = "x",
                    values = new { grade = "G-1" },
                }
            )
        ).EnsureSuccessStatusCode();
        var refused = await orla.OnAsync(run, "POST", "undo");
        (refused.Text("state"), refused.Text("failure")).ShouldBe(("committed", "used:G-1"));
        (await orla.GetAsync("/api/lists/grades/entries/G-2")).Text("name").ShouldBe("Two");
    }

    [Fact]
    public async Task A_list_that_was_changed_since_the_dry_run_is_looked_at_once_more()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("teams", "Code,Name\nLATE,Late team\n");
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/teams/entries",
                new
                {
                    code = "late",
                    name = "Came first",
                    values = new { },
                }
            )
        ).EnsureSuccessStatusCode();
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (run.Text("state"), run.Text("failure")).ShouldBe(("ready", "meanwhile"));
        run.Counts().ShouldBe([0, 1, 0, 0, 0]);

        // What a row refers to is gone.
        var grades = await orla.ImportAsync("grades", "Code,Name\nFLEETING,Fleeting\n");
        await orla.OnAsync(grades, "POST", "commit", new { onlyGood = false });
        var jobs = await orla.ImportAsync("jobs", "Code,Name,Grade\nFLEETING-JOB,Job,FLEETING\n");
        await orla.OnAsync(grades, "POST", "undo");
        jobs = await orla.OnAsync(jobs, "POST", "commit", new { onlyGood = false });
        (jobs.Text("state"), jobs.Text("failure")).ShouldBe(("ready", "meanwhile"));
        jobs.Counts().ShouldBe([0, 0, 0, 1, 0]);
    }

    [Fact]
    public async Task Two_who_press_at_once_commit_once_and_a_server_that_dies_leaves_nothing_twice()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("teams", "Code,Name\n" + string.Concat(Enumerable.Range(0, 500).Select(i => $"D{i},Team {i}\n")));
        await using (var dying = new FidInstance(firm.Database.Connection))
        {
            using var there = orla.MovedTo(dying.Address);
            var both = await Task.WhenAll(
                Enumerable
                    .Range(0, 4)
                    .Select(i => (i % 2 == 0 ? orla : there).SendAsync("POST", $"/api/imports/{run.Text("id")}/commit", new { onlyGood = false }))
            );
            both.Count(b => b.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        } // an instance is gone, whether it had the work or not
        (await orla.SettledAsync(run.Text("id"))).Text("state").ShouldBe("committed");
        (await firm.Database.AskAsync("select count(*) from list_entries where list = 'teams' and code ~ '^D[0-9]'")).ShouldBe(500L);
        (await firm.Database.AskAsync($"select count(*) from changes where subject_id = '{run.Text("id")}'")).ShouldBe(1L);

        // Left in the middle of it, as a kill would leave it: the next that looks takes it up.
        var half = await orla.ImportAsync("teams", "Code,Name\nHALF,Half done\n");
        await firm.Database.AskAsync($"update import_runs set state = 'Committing' where id = '{half.Text("id")}'");
        await firm.Database.AskAsync(
            "insert into jobs (id, kind, argument, recurs, state, due, made_at, tries, started_at) values (gen_random_uuid(), 'import', "
                + $"'{half.Text("id")}', false, 'Running', now(), now(), 1, now())"
        );
        (await orla.SettledAsync(half.Text("id"))).Text("state").ShouldBe("committed");
    }

    [Fact]
    public async Task Every_list_s_own_sheet_comes_back_as_it_went_out_in_both_languages_with_columns_moved()
    {
        using var orla = await firm.As("orla");
        foreach (var list in ShippedLists.All)
        {
            foreach (var language in new[] { "en", "de" })
            {
                var file = await orla.BytesAsync($"/api/lists/{list.Key}/sheet.xlsx?filled=true&language={language}");
                var rows = SheetFile.Rows(() => new MemoryStream(file)).ToList();
                // As after moving columns and sorting: the last column first, the last row first.
                var moved = rows.Take(1)
                    .Concat(rows.Skip(1).Reverse())
                    .Select(r =>
                        string.Join(
                            '\t',
                            r.Concat(Enumerable.Repeat("", rows[0].Length - r.Length))
                                .Reverse()
                                .Select(c => $"\"{c.Replace("\"", "\"\"", StringComparison.Ordinal)}\"")
                        )
                    );
                var run = await orla.ImportAsync(list.Key, string.Join('\n', moved));
                run.Text("state").ShouldBe("ready", list.Key);
                var counts = run.Counts();
                (counts[0], counts[1], counts[3], counts[4]).ShouldBe((0, 0, 0, 0), $"{list.Key} in {language}: {run.ToJsonString()}");
                counts[2].ShouldBe(rows.Count - 1);
            }
            var examples = await orla.ImportAsync(list.Key, await orla.BytesAsync($"/api/lists/{list.Key}/sheet.xlsx"), "examples.xlsx");
            examples["ignored"]!.GetValue<int>().ShouldBe(examples["rows"]!.GetValue<int>(), list.Key);
        }
    }

    [Fact]
    public async Task A_file_that_is_too_large_is_refused_with_the_limit_and_an_unreadable_one_with_a_reason()
    {
        using var orla = await firm.As("orla");
        using var large = await orla.SendFileAsync("/api/imports?list=jobs&fileName=large.csv", new byte[SheetFile.LargestFile + 1]);
        large.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await large.JsonAsync()).Text("title").ShouldContain("50 MB");
        var broken = await orla.ImportAsync("jobs", [0x50, 0x4B, 3, 4, 9, 9], "broken.xlsx");
        (broken.Text("state"), broken.Text("failure")).ShouldBe(("failed", "The workbook cannot be read. Open it, save it anew as .xlsx, and try again."));
        (await firm.Database.AskAsync("select count(*) from import_runs where file_name = 'large.csv'")).ShouldBe(0L);
    }

    private static async Task<Func<Stream>> Opened(Caller caller, JsonNode run)
    {
        var file = await caller.BytesAsync($"/api/imports/{run.Text("id")}/rest.xlsx");
        return () => new MemoryStream(file);
    }
}
