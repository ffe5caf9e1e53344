using System.Diagnostics;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Holiday calendars as iCalendar files, read by a reader that is not ours.</summary>
public class CalendarFileTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Another_reader_finds_every_holiday_on_its_day()
    {
        using var orla = await firm.As("orla");
        var file = await orla.BytesAsync("/api/lists/calendars/entries/islands/calendar.ics?from=2027&to=2027");
        // ical.js, by another hand and in another language, under Node.
        var read = await NodeAsync(
            """
            const ICAL = (await import('ical.js')).default;
            const chunks = []; for await (const c of process.stdin) chunks.push(c);
            const calendar = new ICAL.Component(ICAL.parse(Buffer.concat(chunks).toString('utf8')));
            console.log(JSON.stringify(calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e)).map((e) => [e.startDate.toString(),
              e.endDate.toString(), e.startDate.isDate, e.summary])));
            """,
            file
        );
        var events = JsonNode.Parse(read)!.AsArray().Select(e => $"{e![0]} {e[1]} {e[2]} {e[3]}").ToArray();
        events.ShouldBe([
            "2027-01-01 2027-01-02 true New Year",
            "2027-03-17 2027-03-18 true Founders' Day",
            "2027-03-18 2027-03-19 true Skerry fair",
            "2027-05-03 2027-05-04 true Spring holiday",
            "2027-08-02 2027-08-03 true Regatta",
            "2027-09-08 2027-09-09 true Blessing of the boats",
            "2027-10-04 2027-10-05 true Harvest holiday",
            "2027-12-25 2027-12-26 true Midwinter",
            "2027-12-26 2027-12-27 true Second day of midwinter",
        ]);
    }

    [Fact]
    public async Task What_recurs_every_year_comes_in_as_one_holiday_and_the_rest_day_by_day()
    {
        using var orla = await firm.As("orla");
        string Event(string more) => $"BEGIN:VEVENT\r\nUID:{Guid.NewGuid()}\r\nDTSTAMP:20270101T000000Z\r\n{more}\r\nEND:VEVENT\r\n";
        var text =
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//somebody//else//EN\r\n"
            + Event("DTSTART;VALUE=DATE:20200317\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:Fair\\, with\r\n  boats")
            + Event("DTSTART;VALUE=DATE:20200504\r\nRRULE:FREQ=YEARLY;BYMONTH=5;BYDAY=1MO\r\nSUMMARY:Spring")
            + Event("DTSTART;VALUE=DATE:20270705\r\nDTEND;VALUE=DATE:20270717\r\nSUMMARY:Shutdown")
            + Event("DTSTART;VALUE=DATE:20270402\r\nRRULE:FREQ=YEARLY;COUNT=2\r\nSUMMARY:Twice")
            + "END:VCALENDAR\r\n";
        using var response = await orla.SendAsync("POST", "/api/lists/calendars/read-ics", new { text });
        (await response.JsonAsync())
            .AsArray()
            .Select(h => $"{h!["on"]} {h["name"]} {h["days"]}")
            .ShouldBe(["--03-17 Fair, with boats 1", "--05 1MO Spring 1", "2027-07-05 Shutdown 12", "2027-04-02 Twice 1", "2028-04-02 Twice 1"]);
        using var rubbish = await orla.SendAsync("POST", "/api/lists/calendars/read-ics", new { text = "BEGIN:VCALENDAR\nnonsense" });
        (await rubbish.ErrorsAsync()).ShouldBe([("/text", "bad-calendar")]);
    }

    private static async Task<string> NodeAsync(string script, byte[] input)
    {
        var start = new ProcessStartInfo("node", ["--input-type=module", "-e", script])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            WorkingDirectory = Repository.Web,
        };
        using var process = Process.Start(start)!;
        var output = process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.StandardInput.BaseStream.WriteAsync(input);
        process.StandardInput.Close();
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        process.ExitCode.ShouldBe(0);
        return await output;
    }

    [Theory]
    [InlineData("FREQ=SECONDLY")]
    [InlineData("FREQ=MINUTELY;INTERVAL=1;UNTIL=99991231T235959Z")]
    [InlineData("FREQ=HOURLY;COUNT=2147483647")]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO;BYMONTH=6")]
    public async Task A_rule_that_would_never_end_or_never_comes_is_read_all_the_same(string rule)
    {
        using var orla = await firm.As("orla");
        var text =
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20270101T000000Z\r\nDTSTART;VALUE=DATE:20270101\r\n"
            + $"SUMMARY:Endless\r\nRRULE:{rule}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        using var answer = await orla.SendAsync("POST", "/api/lists/calendars/read-ics", new { text });
        ((int)answer.StatusCode).ShouldBeLessThan(500);
        if (answer.IsSuccessStatusCode)
            (await answer.JsonAsync()).AsArray().Count.ShouldBeLessThan(500);
    }
}
