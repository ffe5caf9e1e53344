using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What a record says of pay: the first of it down to net, what it costs, and how it goes on. The firm's today is 1 March 2027.</summary>
public sealed class PayReadingTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task The_first_pay_of_every_hire_is_what_the_rules_compute_to_the_cent()
    {
        using var orla = await firm.As("orla");
        var followed = 0;
        foreach (var hire in (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().Select(h => h!))
        {
            var readings = await ReadAsync(orla, hire.Text("employmentId"), new { });
            if (readings["firstPay"] is not { } pay)
            {
                // Without a rate or a pay group there is nothing to work out.
                readings["rate"].ShouldBeNull(hire.Text("familyName"));
                continue;
            }
            followed++;
            var (periods, lines) = (pay["periods"]!.AsArray(), pay["basePay"]!.AsArray());
            lines.Sum(l => l!.Amount("amount")).ShouldBe(pay.Amount("total"));
            lines.Select(l => (bool)l!["arrears"]!).ShouldBe(Enumerable.Range(1, periods.Count).Select(i => i < periods.Count));
            periods[0]!.Text("start").ShouldBeLessThanOrEqualTo(hire.Text("start"), StringComparer.Ordinal);
            periods[^1]!.Text("cutOff").ShouldBeGreaterThanOrEqualTo(pay.Text("approvedOn"), StringComparer.Ordinal);
            foreach (var run in periods.SkipLast(1))
                run!.Text("cutOff").ShouldBeLessThan(pay.Text("approvedOn"), StringComparer.Ordinal);

            // Each period by itself, as ./fid compute works it out from what it pays at the base.
            var every = readings["rate"]!.Text("every");
            var slips = lines.Select(l => ComputedPay.Preview(every, l!.Amount("amount"))).ToArray();
            var slip = pay["slip"]!;
            foreach (var (key, what) in new[] { ("gross", "gross"), ("deductions", "deductions"), ("net", "net") })
                slip.Amount(key).ShouldBe(slips.Sum(s => s.Amount(what)), $"{hire.Text("familyName")}: {key}");
            foreach (var line in slip["lines"]!.AsArray())
            {
                line!.Amount("amount").ShouldBe(slips.Sum(s => Line(s, line!.Text("code")).Amount("amount")));
                line!["working"]!.AsArray().Count.ShouldBe(periods.Count);
            }
        }
        followed.ShouldBeGreaterThanOrEqualTo(12);
    }

    [Fact]
    public async Task The_first_pay_shows_its_working()
    {
        using var orla = await firm.As("orla");
        var brandt = (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId");
        var pay = (await ReadAsync(orla, brandt, new { start_date = (string?)null }))["firstPay"]!;
        pay.Text("method").ShouldBe("rosteredHours");
        var run = pay["periods"]!.AsArray().ShouldHaveSingleItem()!;
        (run.Text("start"), run.Text("end"), run.Text("payDate"), run.Text("cutOff")).ShouldBe(("2027-03-08", "2027-03-21", "2027-03-26", "2027-03-22"));
        var lines = pay["slip"]!["lines"]!.AsArray().ToDictionary(l => l!.Text("code"), l => l!);
        (lines["BASE"].Amount("amount"), lines["ISLE"].Amount("amount")).ShouldBe((1044.00m, 41.76m));
        lines["BASE"]["working"]!.AsArray().Select(w => (string)w!).ShouldBe(["A whole period: 1044.00."]);
        ((string)lines["ISLE"]["working"]![0]!).ShouldBe("4 % of BASE (1044.00): 4 % of 1044.00 = 41.76.");
        pay["slip"]!.Amount("net").ShouldBe(938.72m);
    }

    [Fact]
    public async Task What_is_typed_is_paid_as_if_it_were_entered()
    {
        using var orla = await firm.As("orla");
        var brandt = (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId");
        var (stored, typed) = (await ReadAsync(orla, brandt, new { }), await ReadAsync(orla, brandt, new { pay_rate = 20 }));
        ((bool)stored["firstPay"]!["asIfToday"]!, (bool)typed["firstPay"]!["asIfToday"]!).ShouldBe((false, false));
        typed["firstPay"]!.Amount("total").ShouldBe(1200);
        typed["cost"]!.Amount("annualCost").ShouldBeGreaterThan(stored["cost"]!.Amount("annualCost"));
        // Paid by the week: the same pay, stated otherwise.
        var weekly = (await ReadAsync(orla, brandt, new { pay_rate = 522, paid_by = "week" }))["rate"]!["stated"]!;
        (weekly.Amount("hour"), weekly.Amount("day"), weekly.Amount("week"), weekly.Amount("month"), weekly.Amount("year")).ShouldBe(
            (17.4m, 104.4m, 522m, 2262m, 27144m)
        );
    }

    [Fact]
    public async Task A_cost_follows_from_pay_hours_and_days_off_and_leave_from_the_days_left_of_the_year()
    {
        using var orla = await firm.As("orla");
        var brandt = (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId");
        var readings = await ReadAsync(orla, brandt, new { leave_days = 25 });
        // 25 days × 0.8 × 299 of 365 days = 16.38, up to half a day.
        (readings["leave"]!.Amount("days"), readings["leave"]!.Amount("share")).ShouldBe((16.5m, 0.8m));
        var (cost, none) = (readings["cost"]!, (await ReadAsync(orla, brandt, new { leave_days = 0 }))["cost"]!);
        // 25 days of six hours.
        (none.Amount("productiveHours") - cost.Amount("productiveHours")).ShouldBe(150);
        cost.Amount("loadedHourly").ShouldBe(decimal.Round(cost.Amount("annualCost") / cost.Amount("productiveHours"), 2, MidpointRounding.AwayFromZero));
        // The whole period of 1044.00 with 4 % and 6 % of both, 26 times.
        cost.Amount("annualCost").ShouldBe((1044.00m + 41.76m + 65.15m) * 26);
    }

    [Fact]
    public async Task What_is_entered_ahead_is_seen_over_time()
    {
        using var orla = await firm.As("orla");
        var person = await orla.PersonAsync("Morita");
        var before = (await ReadAsync(orla, person, new { }))["payOverTime"]!.AsArray().Count;
        await orla.SaveAsync(
            person,
            new
            {
                changes = new { pay_rate = 21.5 },
                from = "2027-09-01",
                why = "after probation",
            }
        );
        var steps = (await ReadAsync(orla, person, new { }))["payOverTime"]!.AsArray();
        steps.Count.ShouldBe(before + 1);
        (steps[^1]!.Text("from"), steps[^1]!.Amount("hourly")).ShouldBe(("2027-09-01", 21.5m));
        // Somebody who was paid long ago has no first pay any more.
        (await ReadAsync(orla, person, new { }))["firstPay"].ShouldBeNull();
    }

    [Fact]
    public async Task Pay_outside_the_band_is_saved_with_a_reason()
    {
        using var orla = await firm.As("orla");
        // 37.5 hours are full time: 30,000 to 42,000 a year is 15.384… to 21.538… an hour.
        var id = (await orla.OpenAsync("Reasoned")).Text("employmentId");
        foreach (var (rate, needed) in new[] { (21.53m, false), (21.54m, true), (15.38m, true), (15.39m, false) })
        {
            using var saved = await orla.ChangeAsync(id, Records.Fix(new { pay_rate = rate }));
            if (needed)
                (await saved.ErrorsAsync()).ShouldBe([("/why", "reason-needed")], $"{rate}");
            else
                saved.StatusCode.ShouldBe(System.Net.HttpStatusCode.OK, $"{rate}");
        }
        // What was refused was not saved.
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "pay_rate").Amount("value").ShouldBe(15.39m);
        (await (await orla.ChangeAsync(id, Records.Fix(new { pay_rate = 22 }, "  "))).ErrorsAsync()).ShouldBe([("/why", "reason-needed")]);
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 22 }, "agreed at the interview"));
        // What lies outside already needs no other reason for something else, nor for the same pay stated otherwise.
        await orla.SaveAsync(id, Records.Fix(new { room = "7" }));
        await orla.SaveAsync(id, Records.Fix(new { paid_by = "year", pay_rate = 22 * 52 * 37.5m }));
    }

    [Fact]
    public async Task A_hire_whose_typed_pay_lies_outside_the_band_is_opened_with_a_reason_that_stays_with_it()
    {
        using var orla = await firm.As("orla");
        foreach (var (rate, needed) in new[] { (21.53m, false), (21.54m, true), (15.38m, true) })
        {
            using var opened = await OpenAsync(rate, null);
            if (needed)
                (await opened.ErrorsAsync()).ShouldBe([("/why", "reason-needed")], $"{rate}");
            else
                opened.StatusCode.ShouldBe(System.Net.HttpStatusCode.Created, $"{rate}");
        }
        (await (await OpenAsync(22, " ")).ErrorsAsync()).ShouldBe([("/why", "reason-needed")]);
        (await (await OpenAsync(22, new string('x', 501))).ErrorsAsync()).ShouldBe([("/why", "too-long")]);
        using var explained = await OpenAsync(22, "eleven seasons elsewhere");
        explained.StatusCode.ShouldBe(System.Net.HttpStatusCode.Created);
        var id = (await explained.JsonAsync()).Text("id");
        (await firm.Database.AskAsync($"select why from changes where subject_id = '{id}' and action = 'hire.opened'")).ShouldBe("eleven seasons elsewhere");

        // Of several each is asked about for itself, and none is opened.
        var hires = new JsonArray(Hire(17.5m, "Usual"), Hire(22, "Above"), Hire(15, "Below"));
        using (var many = await orla.SendAsync("POST", "/api/hires/many", new JsonObject { ["hires"] = hires.DeepClone() }.ToJsonString()))
            (await many.ErrorsAsync()).ShouldBe([("/hires/1/why", "reason-needed"), ("/hires/2/why", "reason-needed")]);
        (await firm.Database.AskAsync("select count(*) from records_now where family_name in ('Usual', 'Above', 'Below')")).ShouldBe(0L);
        foreach (var hire in hires)
            hire!["why"] = "as agreed with the works council";
        using (var many = await orla.SendAsync("POST", "/api/hires/many", new JsonObject { ["hires"] = hires.DeepClone() }.ToJsonString()))
            many.StatusCode.ShouldBe(System.Net.HttpStatusCode.OK);

        Task<HttpResponseMessage> OpenAsync(decimal rate, string? why) => orla.SendAsync("POST", "/api/hires", Hire(rate, "Opener", why).ToJsonString());

        static JsonObject Hire(decimal rate, string family, string? why = null)
        {
            var hire = Records.NewHire($"Rate {rate}", family);
            hire["typed"]!["pay_rate"] = rate;
            hire["typed"]!["email"] = $"{Guid.NewGuid():N}@example.org";
            hire["why"] = why;
            // Whether it is somebody the firm knows is not what is looked at here.
            hire["start"] = "2027-06-07";
            return hire;
        }
    }

    [Fact]
    public async Task Pay_further_from_colleagues_than_the_grade_allows_needs_a_reason_of_those_who_see_theirs()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Distant")).Text("employmentId");
        var band = (await ReadAsync(orla, id, new { pay_rate = 21 }))["band"]!;
        var distance = band.Amount("fromColleagues");
        distance.ShouldBeGreaterThan(5);
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 21 }));
        await firm.Database.AskAsync(
            "update list_entries set \"values\" = \"values\" || '{\"furthest_from_colleagues\": 5}' where list = 'grades' and code = 'C2'"
        );
        (await (await orla.ChangeAsync(id, Records.Fix(new { pay_rate = 21.1 }))).ErrorsAsync()).ShouldBe([("/why", "reason-needed")]);
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 21.1 }, "eleven seasons elsewhere"));
        var middle = decimal.Round(21 / (1 + distance / 100), 2);
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = middle }));
        // The firm is the other tests' too.
        await firm.Database.AskAsync("update list_entries set \"values\" = \"values\" - 'furthest_from_colleagues' where list = 'grades'");
    }

    [Fact]
    public async Task Whoever_does_not_see_all_of_pay_sees_neither_net_nor_cost()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var brandt = (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId");
        using var ruth = await firm.As("ruth");
        (await ReadAsync(ruth, brandt, new { }))["firstPay"]!["slip"].ShouldNotBeNull();
        await Markers.HideAsync(piet, orla, "payroll", "pay_elements");
        var seen = await ReadAsync(ruth, brandt, new { });
        (seen["firstPay"]!["slip"], seen["cost"]).ShouldBe((null, null));
        seen["firstPay"]!.Amount("total").ShouldBe(1044);
        await Markers.HideAsync(piet, orla, "payroll", "weekly_hours");
        seen = await ReadAsync(ruth, brandt, new { });
        (seen["firstPay"], seen["rate"], seen["leave"]).ShouldBe((null, null, null));
        seen["payOverTime"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task Service_counts_over_all_stints_as_far_as_breaks_are_bridged()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var again = await firm.Database.AskAsync(
            """
            select e.id::text from employments e join hires h on h.employment_id = e.id and h.closed is null and h.occasion = 'Arrival'
            where exists (select from employments o where o.person_id = e.person_id and o.start < e.start) limit 1
            """
        );
        var service = (await ReadAsync(orla, (string)again!, new { probation_end = "2027-09-30" }))["service"]!;
        service.Text("probationEnd").ShouldBe("2027-09-30");
        var stints = (string)
            (
                await firm.Database.AskAsync(
                    $$"""
                    select jsonb_build_object('employments', jsonb_agg(jsonb_strip_nulls(jsonb_build_object('start', start, 'end', "end")) order by start),
                      'bridgeDays', (select bridge_days from firms))::text
                    from employments where person_id = (select person_id from employments where id = '{{again}}')
                    """
                )
            )!;
        var computed = ComputedPay.Answer("service", stints);
        foreach (var day in new[] { "originalHire", "lastHire", "adjustedService" })
            service.Text(day).ShouldBe(computed.Text(day), day);
        service.Text("originalHire").ShouldNotBe(service.Text("lastHire"));
        // Who does not see when stints ended is not told what follows from it.
        using var ruth = await firm.As("ruth");
        await Markers.HideAsync(piet, orla, "payroll", "end_date");
        (await ReadAsync(ruth, (string)again!, new { }))["service"].ShouldBeNull();
    }

    private static async Task<JsonNode> ReadAsync(Caller caller, string employment, object changes)
    {
        using var answer = await caller.SendAsync("POST", $"/api/records/{employment}/readings", new { changes });
        answer.StatusCode.ShouldBe(System.Net.HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }

    private static JsonNode Line(JsonNode slip, string code) => slip["lines"]!.AsArray().Single(l => l!.Text("code") == code)!;
}
