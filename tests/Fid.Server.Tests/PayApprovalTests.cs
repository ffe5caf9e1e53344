using System.Net;
using Fid.Testing;
using Shouldly;
using Xunit;
using static Fid.Testing.PayRuns;

namespace Fid.Server.Tests;

/// <summary>Pay to which others have to agree where it lies too far from the band, or from what the template gives, by whichever way it comes.</summary>
public class PayApprovalTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Whom_it_takes_hangs_on_how_far_pay_lies_from_its_band_and_from_the_template()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        var id = await HandAsync(orla, "Distant");
        await ApproveAsync(piet);

        // The template says 17.40, and the band ends at 42,000 a year, 21.53 an hour.
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 18.2 }, "agreed"));
        (await WrongAsync(orla, id, new { pay_rate = 18.5 })).ShouldBe([("/changes/pay_rate", "needs-approval")]);
        (await WrongAsync(orla, id, new { pay_rate = 30 })).ShouldBe([("/changes/pay_rate", "needs-approval")]);
        // The same pay for half the hours is as much for a full-time year; stated for a month it may be more than it looks.
        await orla.SaveAsync(id, Records.Fix(new { weekly_hours = 20 }, "part-time"));
        (await WrongAsync(orla, id, new { paid_by = "day" })).Single().Code.ShouldBe("needs-approval");

        var near = await orla.AskedAsync(id, new { pay_rate = 18.5 });
        near["steps"]!.AsArray().Select(s => s!["label"]!.Text("en")).ShouldBe(["Far from the template"]);
        await ruth.AgreeToTheOneAsync();
        var far = await orla.AskedAsync(id, new { pay_rate = 30 });
        far["steps"]!.AsArray().Select(s => s!["label"]!.Text("en")).ShouldBe(["Outside the band", "Far from the template"]);
        await piet.AgreeToTheOneAsync();
        await ruth.AgreeToTheOneAsync();
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "pay_rate")["value"]!.GetValue<decimal>().ShouldBe(30);
        // Back within the band nobody is asked, though it is taken back by whoever may.
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 17.9 }, "a mistake"));
    }

    [Fact]
    public async Task New_hires_sheets_and_revisions_ask_by_the_same_distances()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        await ApproveAsync(piet);
        foreach (var (rate, code) in new[] { (30m, "needs-approval"), (16m, "needs-approval"), (17.6m, null) })
        {
            var hire = Records.NewHire("Rhys", "Opened");
            hire["typed"]!["pay_rate"] = rate;
            using var opened = await orla.SendAsync("POST", "/api/hires", hire.ToJsonString());
            if (code is null)
                opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
            else
                (await opened.ErrorsAsync()).ShouldBe([("/typed/pay_rate", code)], $"{rate}");
        }

        var id = await HandAsync(orla, "Sheeted");
        var number = (await orla.GetAsync($"/api/records/{id}")).Text("number");
        foreach (var (rate, problems) in new[] { ("30", new[] { "pay_rate needs-approval" }), ("16.00", ["pay_rate needs-approval"]), ("18", []) })
        {
            var run = await orla.ImportAsync("people", $"Employee number,Pay rate\n{number},{rate}\n");
            (await orla.RowsAsync(run, "wrong"))
                .SelectMany(r => r["problems"]!.AsArray().Select(p => $"{p!.Text("column")} {p!.Text("code")}"))
                .ShouldBe(problems, rate);
        }

        var revision = new
        {
            group = new
            {
                grade = (string?)null,
                job = "DK-2",
                site = (string?)null,
                payGroup = (string?)null,
            },
            percent = 22,
            atLeastHourly = 0,
            upToBand = false,
            from = "2027-04-01",
        };
        using var preview = await orla.SendAsync("POST", "/api/pay-revisions/preview", revision);
        preview.StatusCode.ShouldBe(HttpStatusCode.OK, await preview.Content.ReadAsStringAsync());
        var previewed = await preview.JsonAsync();
        var left = previewed["leftOut"]!.AsArray().Where(l => l!.Text("why") == "needsApproval").ToList();
        left.Count.ShouldBeGreaterThan(0);
        previewed["lines"]!.AsArray().ShouldAllBe(l => l!.Amount("after") * 37.5m * 52 <= 42_000);
    }

    // Once for both: a change of approvals would take a second person.
    private static async Task ApproveAsync(Caller piet)
    {
        if ((await piet.GetAsync("/api/fields"))["configuration"]!["approvals"]?.AsArray() is not { Count: > 0 })
            await Asking.ApproveByAsync(
                piet,
                """
                {"id":"band","label":"Outside the band","fields":["pay_rate","paid_by","weekly_hours"],"when":"outside_band != 0","by":["role:administrator"]},
                {"id":"template","label":"Far from the template","fields":["pay_rate"],"when":"from_template > 5 or from_template < -5","by":["role:payroll"]}
                """
            );
    }

    private static async Task<(string Pointer, string Code)[]> WrongAsync(Caller caller, string id, object changes)
    {
        using var answer = await caller.ChangeAsync(id, Records.Fix(changes, "as agreed"));
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, await answer.Content.ReadAsStringAsync());
        return [.. (await answer.ErrorsAsync()).Select(e => (e.Item1, e.Item2))];
    }
}
