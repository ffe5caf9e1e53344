using System.Net;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What a request would come to, as those learn who decide on it.</summary>
public class RequestEffectTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_a_request_comes_to_is_told_to_those_whom_it_concerns()
    {
        using var callum = await firm.As("callum");
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var report = await Asking.ReportOfCallumAsync(firm.Database);
        var before = Records.Field(await orla.GetAsync($"/api/records/{report}"), "pay_rate")["value"]!.GetValue<decimal>();
        var asked = await callum.AskedAsync(report, new { pay_rate = before + 2 });
        var effects = await ruth.GetAsync($"/api/requests/{asked.Text("id")}/effects");
        var (was, will) = (
            effects["before"]!["rate"]!["stated"]!["hour"]!.GetValue<decimal>(),
            effects["after"]!["rate"]!["stated"]!["hour"]!.GetValue<decimal>()
        );
        (was, will).ShouldBe((before, before + 2));
        effects["after"]!["band"]!["compaRatio"]!.GetValue<decimal>().ShouldBeGreaterThan(effects["before"]!["band"]!["compaRatio"]!.GetValue<decimal>());
        using var nils = await firm.As("nils");
        foreach (var what in new[] { "effects", "others" })
            (await nils.SendAsync("GET", $"/api/requests/{asked.Text("id")}/{what}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        foreach (var word in new[] { "agree", "refuse", "withdraw", "comment" })
            (await nils.DecideAsync(asked, word, "x")).StatusCode.ShouldBe(HttpStatusCode.NotFound, word);
        (await nils.GetAsync("/api/requests")).ToJsonString().ShouldNotContain(asked.Text("id"));

        // With the manager go the open tasks of managers.
        var newcomer = (string)
            (
                await firm.Database.AskAsync(
                    """
                    select r.employment_id::text from records_now r
                      join hires h on h.employment_id = r.employment_id and h.closed is null and h.occasion = 'Arrival'
                      join hire_tasks t on t.hire_id = h.id and t.owner = 'manager' and t.done is null and t.skipped_why is null
                      join employments m on m.id = r.manager_id join users u on u.person_id = m.person_id and u.email = 'callum@halyard.example' limit 1
                    """
                )
            )!;
        var eoin = (await callum.GetAsync("/api/people/colleagues?q=eoin")).AsArray().ShouldHaveSingleItem()!;
        var moved = await callum.AskedAsync(newcomer, new { manager = eoin.Text("employmentId") });
        var checklist = (await orla.GetAsync($"/api/requests/{moved.Text("id")}/effects"))["checklist"]!;
        checklist["handedOver"]!.GetValue<int>().ShouldBeGreaterThan(0);
        (await orla.ToDecideAsync()).First(r => r.Text("id") == moved.Text("id"))["changes"]![0]!["new"]!.Text("display").ShouldBe("Eoin Brannigan");
    }

    [Fact]
    public async Task Another_pattern_is_told_in_paid_hours_beside_what_was_agreed()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var report = await Asking.ReportOfCallumAsync(firm.Database);
        await orla.SaveAsync(
            report,
            new
            {
                changes = new
                {
                    shift_pattern = "four-a",
                    weekly_hours = 37.5,
                    holiday_calendar = (string?)null,
                },
                from = (string?)null,
                why = (string?)null,
            }
        );
        await Asking.ApproveByAsync(piet, """{"id":"roster","label":"Roster","fields":["shift_pattern"],"by":["role:administrator"]}""");
        var asked = await orla.AskedAsync(report, new { shift_pattern = "yard" }, from: "2027-04-05");
        var effects = await piet.GetAsync($"/api/requests/{asked.Text("id")}/effects");
        // From the last of four on: 13 shifts of 450 minutes in 28 days. A yard's days are 20; 37.5 hours for four weeks are 9,000 minutes.
        Told("before").ShouldBe(("four-a", "2027-04-05", "2027-05-02", 13 * 450, 9000));
        Told("after").ShouldBe(("yard", "2027-04-05", "2027-05-02", 20 * 450, 9000));

        // From the last Friday of March: the night the clocks go forward is an hour shorter, where it falls within a shift.
        using (var withdrawn = await orla.DecideAsync(asked, "withdraw"))
            withdrawn.IsSuccessStatusCode.ShouldBeTrue(await withdrawn.Content.ReadAsStringAsync());
        var night = await orla.AskedAsync(report, new { shift_pattern = "four-b" }, from: "2027-03-27");
        effects = await piet.GetAsync($"/api/requests/{night.Text("id")}/effects");
        var both = new[] { "before", "after" }.Select(w => effects[w]!["roster"]!["paidMinutes"]!.GetValue<int>()).ToList();
        both.ShouldContain(14 * 450 - 60, effects.ToJsonString());

        (string, string, string, int, int) Told(string when) =>
            effects[when]!["roster"] is { } r
                ? (r.Text("pattern"), r.Text("from"), r.Text("to"), r["paidMinutes"]!.GetValue<int>(), r["contractMinutes"]!.GetValue<int>())
                : default;
    }
}
