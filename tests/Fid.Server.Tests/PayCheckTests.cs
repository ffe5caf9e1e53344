using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using CsvHelper;
using Fid.Testing;
using Shouldly;
using Xunit;
using static Fid.Testing.PayRuns;

namespace Fid.Server.Tests;

/// <summary>Who is paid anew or otherwise in a run, what stands against it, and the tick that holds until something changes.</summary>
public class PayCheckTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Place_record_sheet_and_compute_say_the_same_to_the_cent()
    {
        using var orla = await firm.As("orla");
        var compared = 0;
        foreach (var (group, day) in new[] { ("crew", "2027-02-22"), ("crew", Fortnight), ("yard", "2027-02-22"), ("crew", "2027-04-05") })
        {
            var run = await RunAsync(orla, group, day);
            var sheet = await SheetAsync(orla, group, day);
            sheet.Count.ShouldBe(run["lines"]!.AsArray().Count);
            foreach (var line in run["lines"]!.AsArray().Select(l => l!))
            {
                var row = sheet[line.Text("number")];
                row["Name"].ShouldBe(line.Text("name"));
                row["Last time, gross"].ShouldBe(Written(line["lastGross"]));
                if (line["amounts"] is not { } amounts)
                {
                    row["Gross"].ShouldBe("");
                    continue;
                }
                (row["Gross"], row["Deductions"], row["Net"], row["Cost to the firm"]).ShouldBe(
                    (Written(amounts["gross"]), Written(amounts["deductions"]), Written(amounts["net"]), Written(amounts["employerCost"]))
                );
                var working = await orla.GetAsync($"/api/pay-check/{group}/{day}/{line.Text("employmentId")}");
                working["slip"]!.Amount("net").ShouldBe(amounts.Amount("net"));
                if (line["news"]!.AsArray().All(n => n!.Text("kind") != "starts"))
                    continue;
                compared++;
                var record = (await orla.SendAsync("POST", $"/api/records/{line.Text("employmentId")}/readings", new { changes = new { } })).JsonAsync();
                var first = (await record)["firstPay"]!;
                first["periods"]!.AsArray()[^1]!.Text("start").ShouldBe(run["period"]!.Text("start"));
                (first["slip"]!.Amount("gross"), first["slip"]!.Amount("net")).ShouldBe((amounts.Amount("gross"), amounts.Amount("net")), line.Text("name"));
                var computed = first["basePay"]!.AsArray().Select(p => ComputedPay.Preview(group == "crew" ? "fortnight" : "week", p!.Amount("amount")));
                computed.Sum(c => c.Amount("net")).ShouldBe(amounts.Amount("net"), line.Text("name"));
            }
        }
        compared.ShouldBeGreaterThanOrEqualTo(10);
    }

    [Fact]
    public async Task Totals_by_department_and_cost_centre_are_those_of_the_lines()
    {
        using var piet = await firm.As("piet");
        var run = await RunAsync(piet, "crew", "2027-04-05");
        run["lines"]!.AsArray().Count.ShouldBeGreaterThan(3);
        var totals = run["totals"]!;
        foreach (var amount in new[] { "gross", "deductions", "net", "employerCost" })
        {
            var ofLines = run["lines"]!.AsArray().Where(l => l!["amounts"] is not null).Sum(l => l!["amounts"]!.Amount(amount));
            ofLines.ShouldBeGreaterThan(0);
            totals["all"]!.Amount(amount).ShouldBe(ofLines, amount);
            foreach (var share in new[] { "departments", "costCentres" })
                totals[share]!.AsArray().Sum(s => s!["amounts"]!.Amount(amount)).ShouldBe(ofLines, $"{amount} by {share}");
        }
        totals["departments"]!.AsArray().Sum(s => (int)s!["people"]!).ShouldBe(run["lines"]!.AsArray().Count(l => l!["amounts"] is not null));
        (totals["all"]!.Amount("net") + totals["all"]!.Amount("deductions")).ShouldBe(totals["all"]!.Amount("gross"));
    }

    [Fact]
    public async Task A_tick_holds_until_something_changes_and_then_says_what()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var id = await HandAsync(orla, "Ticked");
        var before = await LineAsync(piet, id);
        (await CheckAsync(piet, before)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var ticked = await LineAsync(piet, id);
        ((bool)ticked["check"]!["holds"]!, ticked["check"]!.Text("byName"), ticked.Text("version")).ShouldBe((true, "Piet Haverkort", before.Text("version")));
        // What pay does not hang on clears nothing.
        await orla.SaveAsync(id, "room", "7");
        ((bool)(await LineAsync(piet, id))["check"]!["holds"]!).ShouldBeTrue();

        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 18.2 }, "as agreed"));
        var changed = await LineAsync(piet, id);
        ((bool)changed["check"]!["holds"]!).ShouldBeFalse();
        ChangedSince(changed).ShouldBe(["employerCost", "gross", "net", "pay_rate"]);
        // What somebody saw before is not what they tick now.
        (await CheckAsync(piet, before)).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await CheckAsync(piet, changed)).EnsureSuccessStatusCode();
        ((bool)(await LineAsync(piet, id))["check"]!["holds"]!).ShouldBeTrue();

        // Another account is told as that, not as which; and is found to be another though nobody here may read it.
        await orla.SaveAsync(id, Records.Fix(new { bank_account = "IE29AIBK93115212345678" }));
        var paidElsewhere = await LineAsync(piet, id);
        ChangedSince(paidElsewhere).ShouldBe(["bank_account"]);
        (await CheckAsync(piet, paidElsewhere, isRight: false)).EnsureSuccessStatusCode();
        (await LineAsync(piet, id))["check"].ShouldNotBeNull("what does not hold was not taken back");
        (await CheckAsync(piet, paidElsewhere)).EnsureSuccessStatusCode();
        (await CheckAsync(piet, paidElsewhere, isRight: false)).EnsureSuccessStatusCode();
        (await LineAsync(piet, id))["check"].ShouldBeNull();
        (
            await firm.Database.AskAsync(
                $"select string_agg(action || ' ' || part, ', ' order by at) from changes where subject_id = '{id}' and origin = 'payCheck'"
            )
        ).ShouldBe($"pay.checked crew {Fortnight}, pay.checked crew {Fortnight}, pay.checked crew {Fortnight}, pay.unchecked crew {Fortnight}");
    }

    [Fact]
    public async Task Whoever_ticks_twice_or_under_one_key_twice_ticks_once_and_of_many_all_or_none()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var (one, other) = (await HandAsync(orla, "Once"), await HandAsync(orla, "Twice"));
        var (first, second) = (await LineAsync(piet, one), await LineAsync(piet, other));
        var body = Body([first, second], isRight: true);
        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            (await piet.SendAsync("POST", "/api/pay-check", body, key: key)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await Task.WhenAll(CheckAsync(piet, first), CheckAsync(piet, first));
        (await TrailAsync(one)).ShouldBe("1");

        // One of them changed: nothing is said of the other either.
        await orla.SaveAsync(one, Records.Fix(new { weekly_hours = 20 }));
        (await piet.SendAsync("POST", "/api/pay-check", Body([first, second], isRight: false))).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        ((bool)(await LineAsync(piet, other))["check"]!["holds"]!).ShouldBeTrue();
        (await piet.SendAsync("POST", "/api/pay-check", Body([second, second], isRight: true))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await piet.SendAsync("POST", "/api/pay-check", Body([], isRight: true))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        foreach (var (group, period) in new[] { ("no-such", Fortnight), ("crew", "2020-01-06"), ("office", Fortnight) })
            (await piet.SendAsync("POST", "/api/pay-check", Body([second], isRight: true, group, period))).StatusCode.ShouldBe(HttpStatusCode.NotFound, group);

        async Task<string?> TrailAsync(string id) =>
            (await firm.Database.AskAsync($"select count(*) from changes where subject_id = '{id}' and action = 'pay.checked'"))?.ToString();
    }

    [Fact]
    public async Task What_stands_against_pay_is_told_the_worst_first()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Against", account: null);
        await Told(id, "noBankAccount");
        await orla.SaveAsync(id, Records.Fix(new { payment_method = "cash" }));
        await Told(id);
        await orla.SaveAsync(id, Records.Fix(new { payment_method = "transfer" }));
        await Told(id, "noBankAccount");
        // 42,000 a year at most: 30 an hour is 58,500.
        await orla.SaveAsync(id, Records.Fix(new { pay_rate = 30 }, "nobody else knows the old engines"));
        var findings = await Told(id, "noBankAccount", "outsideBand", "unlikeTemplate");
        (findings[1]!.Amount("number"), findings[2]!.Amount("number")).ShouldBe((39.3m, 17.4m));
        findings.Select(f => (bool)f!["stops"]!).ShouldBe([true, false, false]);
        await orla.SaveAsync(id, Records.Fix(new { weekly_hours = (decimal?)null }));
        await Told(id, "notWorkedOut", "noBankAccount", "unlikeTemplate");
        await orla.SaveAsync(id, Records.Fix(new { pay_group = (string?)null }));
        var run = await RunAsync(orla, "crew", Fortnight);
        run["lines"]!.AsArray().ShouldNotContain(l => l!.Text("employmentId") == id);
        run["ungrouped"]!.AsArray().ShouldContain(u => u!.Text("employmentId") == id);

        async Task<JsonArray> Told(string of, params string[] kinds)
        {
            var told = (await LineAsync(orla, of))["findings"]!.AsArray();
            told.Select(f => f!.Text("kind")).ShouldBe(kinds);
            return told;
        }
    }

    [Fact]
    public async Task A_missed_cut_off_is_told_in_the_run_it_missed_and_paid_with_arrears_in_the_next()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Late", start: "2027-02-10");
        // Known only since two days after the cut-off of 22 February.
        await WrittenAsync($"update record_values set known = tstzrange('2027-02-24 09:00+00', null) where owner_id = '{id}' and field = 'pay_group'");
        var missed = (await RunAsync(orla, "crew", "2027-02-08"))["lines"]!.AsArray().Single(l => l!.Text("employmentId") == id)!;
        missed["amounts"].ShouldBeNull();
        var finding = missed["findings"]!.AsArray().Single(f => f!.Text("kind") == "cutOffMissed")!;
        (finding.Amount("number"), finding["run"]!.Text("start"), (bool)finding["stops"]!).ShouldBe((2, "2027-02-22", true));
        var paid = (await RunAsync(orla, "crew", "2027-02-22"))["lines"]!.AsArray().Single(l => l!.Text("employmentId") == id)!;
        paid["news"]!.AsArray().Single()!.Text("kind").ShouldBe("arrears");
        paid["lastGross"].ShouldBeNull();
        var record = await (await orla.SendAsync("POST", $"/api/records/{id}/readings", new { changes = new { } })).JsonAsync();
        record["firstPay"]!["slip"]!.Amount("gross").ShouldBe(paid["amounts"]!.Amount("gross"));
        // From the run after that on nothing is new.
        (await RunAsync(orla, "crew", Fortnight))["lines"]!.AsArray().ShouldNotContain(l => l!.Text("employmentId") == id);
    }

    [Fact]
    public async Task A_raise_entered_ahead_does_not_put_the_first_pay_off()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Ahead");
        var before = await LineAsync(orla, id);
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { pay_rate = 19 },
                from = "2027-09-13",
                why = "after probation",
            }
        );
        // As if it were entered after the cut-off of the first run.
        await WrittenAsync(
            $"""
            update record_values set known = case when upper_inf(known) then tstzrange('2027-03-24', null) else tstzrange(lower(known), '2027-03-24') end
              where owner_id = '{id}' and field = 'pay_rate'
            """
        );
        var after = await LineAsync(orla, id);
        (after["amounts"]!.Amount("gross"), after.Text("version")).ShouldBe((before["amounts"]!.Amount("gross"), before.Text("version")));
        // And is new in the run it falls into: 17.40 for the whole period before.
        var raised = (await RunAsync(orla, "crew", "2027-09-13"))["lines"]!.AsArray().Single(l => l!.Text("employmentId") == id)!;
        var news = raised["news"]!.AsArray().Single()!;
        (news.Text("kind"), news.Text("day"), news.Amount("before"), news.Amount("after")).ShouldBe(("rate", "2027-09-13", 17.4m, 19m));
        raised["amounts"]!.Amount("gross").ShouldBeGreaterThan(raised.Amount("lastGross"));
    }

    [Fact]
    public async Task Hours_changed_in_the_middle_of_a_period_and_a_last_day_are_paid_in_part()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Between");
        var whole = (await LineAsync(orla, id))["amounts"]!.Amount("gross");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { weekly_hours = 0.5 },
                from = "2027-03-15",
                why = "on leave without pay, but for the monthly meeting",
            }
        );
        var line = await LineAsync(orla, id);
        line["news"]!.AsArray().Select(n => n!.Text("kind")).ShouldBe(["starts", "hours"]);
        line["amounts"]!.Amount("gross").ShouldBeInRange(whole * 0.3m, whole * 0.75m);
        var working = await orla.GetAsync($"/api/pay-check/crew/{Fortnight}/{id}");
        ((string)working["slip"]!["lines"]![0]!["working"]![0]!).ShouldMatch("rostered hours: .* rostered hours: ");
    }

    [Fact]
    public async Task Whoever_does_not_see_all_of_pay_sees_no_line_and_cannot_tick_one()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        var id = await HandAsync(orla, "Hidden");
        var line = await LineAsync(ruth, id);
        (await CheckAsync(ruth, line)).EnsureSuccessStatusCode();
        await orla.SaveAsync(id, "department", "engine");
        ChangedSince(await LineAsync(ruth, id)).ShouldContain("department");
        await Markers.HideAsync(piet, orla, "payroll", "department");
        // That something changed is seen, but not of a field that is not.
        var unsaid = await LineAsync(ruth, id);
        ((bool)unsaid["check"]!["holds"]!).ShouldBeFalse();
        ChangedSince(unsaid).ShouldNotContain("department");
        line = unsaid;
        await Markers.HideAsync(piet, orla, "payroll", "pay_elements");
        var run = await RunAsync(ruth, "crew", Fortnight);
        (run["lines"]!.AsArray().Count, run["ungrouped"]!.AsArray().Count, run["totals"]!["all"]!.Amount("gross")).ShouldBe((0, 0, 0));
        (await SheetAsync(ruth, "crew", Fortnight)).ShouldBeEmpty();
        (await ruth.SendAsync("GET", $"/api/pay-check/crew/{Fortnight}/{line.Text("employmentId")}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await CheckAsync(ruth, line)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        // Who enters pay does not check it.
        (await CheckAsync(orla, line)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private static string[] ChangedSince(JsonNode line) => [.. line["check"]!["changedSince"]!.AsArray().Select(f => (string)f!)];

    // What is recorded cannot be altered, but for a test that is to have been written on another day.
    private async Task WrittenAsync(string update) =>
        await firm.Database.AskAsync($"set session_replication_role = replica; {update}; set session_replication_role = origin");

    private static Task<HttpResponseMessage> CheckAsync(Caller caller, JsonNode line, bool isRight = true) =>
        caller.SendAsync("POST", "/api/pay-check", Body([line], isRight));

    private static object Body(JsonNode[] lines, bool isRight, string group = "crew", string period = Fortnight) =>
        new
        {
            payGroup = group,
            period,
            people = lines.Select(l => new { employmentId = l.Text("employmentId"), version = l.Text("version") }),
            @checked = isRight,
        };

    private static async Task<Dictionary<string, Dictionary<string, string>>> SheetAsync(Caller caller, string group, string day)
    {
        using var text = new StreamReader(new MemoryStream(await caller.BytesAsync($"/api/pay-check/{group}/{day}/sheet.csv")));
        using var csv = new CsvReader(text, CultureInfo.InvariantCulture);
        await csv.ReadAsync();
        csv.ReadHeader();
        var rows = new Dictionary<string, Dictionary<string, string>>();
        while (await csv.ReadAsync())
            rows[csv.GetField("Employee number")!] = csv.HeaderRecord!.ToDictionary(h => h, h => csv.GetField(h)!);
        return rows;
    }

    private static string Written(JsonNode? amount) => amount?.GetValue<decimal>().ToString("0.00", CultureInfo.InvariantCulture) ?? "";
}
