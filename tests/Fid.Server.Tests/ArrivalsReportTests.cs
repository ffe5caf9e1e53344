using System.IO.Compression;
using System.Net;
using System.Text;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Arrivals to take along, as PDF and as a workbook. The firm's today is 1 March 2027, a Monday.</summary>
public class ArrivalsReportTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_week_comes_as_a_PDF_and_one_that_is_no_date_is_refused()
    {
        using var orla = await firm.As("orla");
        foreach (var week in new[] { "", "?on=2027-03-10", "?on=2031-01-01&occasion=leaving" })
        {
            using var answer = await orla.SendAsync("GET", $"/api/arrivals/week.pdf{week}");
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
            Encoding.ASCII.GetString(await answer.Content.ReadAsByteArrayAsync(), 0, 5).ShouldBe("%PDF-");
            answer.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("inline");
        }
        using (var bad = await orla.SendAsync("GET", "/api/arrivals/week.pdf?on=someday"))
            bad.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using (var bad = await orla.SendAsync("GET", "/api/arrivals/week.pdf?on=0001-01-01"))
            (await bad.JsonAsync())["errors"]![0]!.Text("pointer").ShouldBe("/on");
    }

    [Fact]
    public async Task All_of_them_come_as_a_sheet_with_what_the_reader_sees()
    {
        using var orla = await firm.As("orla");
        orla.Language = "en";
        var hires = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray();
        var sheet = await SheetAsync(orla, "");
        sheet.ShouldContain("Held up by");
        foreach (var hire in hires)
            sheet.ShouldContain(hire!.Text("number"));
        sheet.ShouldContain("Varga");
        (await SheetAsync(orla, "?occasion=leaving")).ShouldNotContain("Varga");
        orla.Language = "de";
        (await SheetAsync(orla, "")).ShouldContain("Was aufhält");

        // A manager sees those of theirs, and no more.
        using var callum = await firm.As("callum");
        var his = (await callum.GetAsync("/api/arrivals"))["hires"]!.AsArray().Select(h => h!.Text("number")).ToHashSet();
        var seen = await SheetAsync(callum, "");
        foreach (var number in hires.Select(h => h!.Text("number")))
            seen.Contains(number, StringComparison.Ordinal).ShouldBe(his.Contains(number), number);
    }

    // Everything that stands in the workbook.
    private static async Task<string> SheetAsync(Caller caller, string query)
    {
        using var answer = await caller.SendAsync("GET", $"/api/arrivals/sheet.xlsx{query}");
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        using var workbook = new ZipArchive(await answer.Content.ReadAsStreamAsync());
        var text = new StringBuilder();
        foreach (var part in workbook.Entries.Where(e => e.FullName.EndsWith(".xml", StringComparison.Ordinal)))
        {
            using var reader = new StreamReader(await part.OpenAsync());
            text.Append(WebUtility.HtmlDecode(await reader.ReadToEndAsync()));
        }
        return text.ToString();
    }
}
