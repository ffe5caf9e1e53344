using System.IO.Compression;
using System.Net;
using System.Text;
using Fid.Acts.Exchange;
using Fid.Data;
using Fid.Testing;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What comes with a sheet: kept sealed, bounded, and let go of.</summary>
public class ImportSealTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string Iban = "IE29AIBK93115212345678";

    [Theory]
    [InlineData("Bank account (IBAN)")]
    [InlineData("Whatever")]
    public async Task Nothing_of_a_sheet_stands_in_the_database_in_the_open_before_or_after_it_is_committed(string header)
    {
        using var orla = await firm.As("orla");
        var number = (string)(await firm.Database.AskAsync("select number from employments order by number limit 1"))!;
        var run = await orla.ImportAsync("people", $"Employee number,Room or desk,{header}\n{number},Loft {header.Length},{Iban}\nNOBODY-{Iban},x,{Iban}\n");
        (await StandsAsync()).ShouldBe(0L);
        // Whoever sent it sees it, what is wrong with it too.
        (await orla.RowsAsync(run)).Select(r => (string)r["cells"]![2]!).ShouldBe([Iban, Iban]);
        (await orla.RowsAsync(run, "wrong")).Single()["problems"]![0]!.Text("detail").ShouldContain(Iban);
        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 2,
                column = 1,
                text = Iban,
                allLike = false,
            }
        );
        (await StandsAsync()).ShouldBe(0L);
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = true })).Text("state").ShouldBe("committed");
        (await StandsAsync()).ShouldBe(0L);
    }

    [Fact]
    public async Task Rows_of_imports_go_after_their_time_and_what_was_done_stays()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync("teams", "Code,Name\nLATE-1,Late one\n");
        (await orla.OnAsync(run, "POST", "commit", new { onlyGood = false })).Text("state").ShouldBe("committed");
        var left = await orla.ImportAsync("teams", "Code,Name\nLEFT-1,Left lying\n");
        await using (var source = FidDatabase.Source(firm.Database.Connection))
        await using (var db = FidDatabase.Open(source))
        {
            var now = SystemClock.Instance.GetCurrentInstant();
            (await ImportRetention.ClearAsync(db, now + Duration.FromDays(29), TestContext.Current.CancellationToken)).ShouldBe(0);
            (await ImportRetention.ClearAsync(db, now + Duration.FromDays(31), TestContext.Current.CancellationToken)).ShouldBeGreaterThanOrEqualTo(2);
        }
        (
            await firm.Database.AskAsync(
                $"select count(*) from import_rows where run_id in ('{run.Text("id")}', '{left.Text("id")}') and (cells is not null or values is not null)"
            )
        ).ShouldBe(0L);
        using var undo = await orla.SendAsync("POST", $"/api/imports/{run.Text("id")}/undo");
        (undo.StatusCode, (await undo.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "too-late"));
        (await orla.RowsAsync(run)).ShouldBeEmpty();
        (await orla.GetAsync("/api/lists/teams/entries/LATE-1/history"))[0]!.Text("action").ShouldBe("import.committed");
        (await orla.GetAsync("/api/imports")).AsArray().ShouldNotContain(i => i!.Text("id") == left.Text("id"));
    }

    [Fact]
    public async Task An_import_that_takes_long_blocks_nobody_and_can_be_dropped_while_it_is_read()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        using var sent = await orla.SendFileAsync("/api/imports?list=teams&fileName=slow.xlsx", Slow());
        var id = (await sent.JsonAsync()).Text("id");
        var quick = await piet.ImportAsync("teams", "Code,Name\nQUICK-1,Quick one\n");
        quick.Text("state").ShouldBe("ready");
        (await orla.GetAsync($"/api/imports/{id}")).Text("state").ShouldBe("reading");
        (await orla.SendAsync("DELETE", $"/api/imports/{id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // It is gone once the user who reads it has seen that it was dropped.
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while ((await orla.SendAsync("GET", $"/api/imports/{id}")).StatusCode != HttpStatusCode.NotFound)
            patience.Token.ThrowIfCancellationRequested();
        (await firm.Database.AskAsync($"select count(*) from import_pieces where run_id = '{id}'")).ShouldBe(0L);
    }

    private async Task<long> StandsAsync()
    {
        var stands = 0L;
        foreach (var table in new[] { "import_pieces", "import_rows", "import_runs", "import_memory", "changes" })
            stands += (long)
                (
                    await firm.Database.AskAsync(
                        $"select count(*) from {table} t where position('{Iban}' in t::text) > 0 or "
                            + $"position('{Convert.ToHexStringLower(Encoding.UTF8.GetBytes(Iban))}' in t::text) > 0"
                    )
                )!;
        return stands;
    }

    // Millions of cells that hold nothing: small to send, and long to look through.
    private static byte[] Slow()
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            Part("xl/workbook.xml", w =>
                w.Write(
                    """<workbook xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" """
                        + """sheetId="1" r:id="rId1"/></sheets></workbook>"""
                )
            );
            Part("xl/_rels/workbook.xml.rels", w => w.Write("""<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>"""));
            Part("xl/worksheets/sheet1.xml", w =>
            {
                w.Write("<worksheet><sheetData>");
                var random = new Random(7);
                for (var row = 0; row < 4_000_000; row++)
                    w.Write($"<row r=\"{random.Next(1000)}\"><c r=\"A1\" s=\"{row % 7}\"/><c r=\"B1\" s=\"1\"/><c r=\"C1\" s=\"1\"/></row>");
                w.Write("</sheetData></worksheet>");
            });

            void Part(string name, Action<StreamWriter> write)
            {
                using var writer = new StreamWriter(zip.CreateEntry(name, CompressionLevel.Fastest).Open());
                write(writer);
            }
        }
        return stream.ToArray();
    }
}
