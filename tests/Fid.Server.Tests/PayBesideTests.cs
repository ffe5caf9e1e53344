using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;
using static Fid.Testing.PayRuns;

namespace Fid.Server.Tests;

/// <summary>What a record says is paid beside base pay, and which cost centres bear it: in the record, in the run and in its totals.</summary>
public class PayBesideTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_second_job_is_seen_while_it_is_typed_and_paid_with_the_run_on_its_own_cost_centre()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Evening");
        var alone = await ReadAsync(orla, id, []);
        var second = Row(("kind", "secondJob"), ("amount", 15.2m), ("hours", 6m), ("job", "TC-1"), ("cost_centre", "510"));
        var typed = await ReadAsync(orla, id, second);
        var line = typed["firstPay"]!["slip"]!["lines"]!.AsArray().Single(l => l!.Text("code") == "SECOND")!;
        line["working"]![0]!.GetValue<string>().ShouldStartWith("6 hours a week at 15.20: 6 × 15.20 × 52 ÷ 26 = 182.40 a period.");
        // Thirty hours a week and six more; a year of them and the employer's part of nothing of it.
        (typed["cost"]!.Amount("annualCost") - alone["cost"]!.Amount("annualCost")).ShouldBe(182.40m * 26);
        typed["cost"]!.Amount("productiveHours").ShouldBeGreaterThan(alone["cost"]!.Amount("productiveHours"));
        // Nothing of it is the rate that is held against the band.
        typed["band"]!.ToJsonString().ShouldBe(alone["band"]!.ToJsonString());

        var (before, hallBefore) = (await LineAsync(orla, id), await CentreAsync(orla, "510"));
        await orla.SaveAsync(id, Records.Fix(second, "helps out at the ticket hall"));
        var after = await LineAsync(orla, id);
        after["amounts"]!.Amount("gross").ShouldBe(typed["firstPay"]!["slip"]!.Amount("gross"));
        after.Text("version").ShouldNotBe(before.Text("version"));
        after.Text("costCentre").ShouldContain("510");
        after.Text("costCentre").ShouldContain(before.Text("costCentre"));
        var hall = await CentreAsync(orla, "510");
        (hall!["amounts"]!.Amount("gross") - (hallBefore?["amounts"]!.Amount("gross") ?? 0)).ShouldBe(line.Amount("amount"));
    }

    [Fact]
    public async Task What_is_due_later_comes_with_the_run_of_its_day_and_is_news_there()
    {
        using var orla = await firm.As("orla");
        var id = (string)
            (
                await firm.Database.AskAsync(
                    """
                    select e.id::text from employments e join records_now r on r.employment_id = e.id where r.job_code = 'EN-2' and e."end" is null
                      and e.start < '2026-01-01' and not exists (select from record_values v where v.owner_id = e.id and v.row_id is not null) limit 1
                    """
                )
            )!;
        (await FindLineAsync(orla, id, "2027-04-05")).ShouldBeNull();
        await orla.SaveAsync(id, Records.Fix(Row(("kind", "oneOff"), ("amount", 250), ("due", "2027-04-12"), ("note", "ten years")), "ten years"));
        await orla.SaveAsync(id, Records.Fix(Row(("kind", "allowance"), ("amount", 46), ("until", "2027-05-02")), "until the new pump"));
        var line = await LineAsync(orla, id, "2027-04-05");
        News(line).ShouldBe(["oneOff 2027-04-12"]);
        line.Amount("difference").ShouldBe(250);
        var working = await orla.GetAsync($"/api/pay-check/crew/2027-04-05/{id}");
        working["slip"]!["lines"]!.AsArray().Single(l => l!.Text("code") == "ONCE")!["working"]![0]!
            .GetValue<string>()
            .ShouldBe("ten years: Paid once: 250.00.");
        // The allowance is paid the last time for the second of May: from the third on it is news that it is not.
        var ended = await LineAsync(orla, id, "2027-05-03");
        (News(ended).Single(), ended.Amount("difference")).ShouldBe(("allowance 2027-05-03", -46m));
        (await FindLineAsync(orla, id, "2027-05-17")).ShouldBeNull();
    }

    [Fact]
    public async Task Cost_is_shared_out_to_the_cent_and_only_where_the_shares_are_a_hundred()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var id = await HandAsync(orla, "Shared");
        var half = Split("400", 60);
        (await WrongAsync(orla, id, half)).ShouldBe(("percent", "not-hundred"));
        var whole = half.Concat(Split("600", 40)).ToDictionary();
        await orla.SaveAsync(id, Records.Fix(whole, "lent to the yard"));
        var gross = (await LineAsync(orla, id))["amounts"]!.Amount("gross");
        var yard = (await CentreAsync(orla, "600"))!["amounts"]!;
        Math.Abs(yard.Amount("gross") - gross * 0.4m).ShouldBeLessThanOrEqualTo(0.01m);
        (yard.Amount("net") + yard.Amount("deductions")).ShouldBe(yard.Amount("gross"));
        var run = await RunAsync(orla);
        foreach (var amount in new[] { "gross", "deductions", "net", "employerCost" })
            run["totals"]!["costCentres"]!.AsArray().Sum(c => c!["amounts"]!.Amount(amount)).ShouldBe(run["totals"]!["all"]!.Amount(amount), amount);
        // Taking one away leaves shares that are not all.
        (await WrongAsync(orla, id, new() { [half.Keys.First().Replace(".cost_centre", "", StringComparison.Ordinal)] = null })).ShouldBe(
            ("percent", "not-hundred")
        );
        // Who does not see the shares is not told whom the cost falls on.
        using var piet = await firm.As("piet");
        await Markers.HideAsync(piet, orla, "payroll", "cost_split");
        (await RunAsync(ruth))["totals"]!["costCentres"]!.AsArray().ShouldBeEmpty();
        (await LineAsync(ruth, id))["costCentre"].ShouldBeNull();
    }

    [Fact]
    public async Task What_does_not_go_together_is_told_at_its_cell_and_nothing_is_saved()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Overlap");
        (await WrongAsync(orla, id, Row(("kind", "secondJob"), ("amount", 15)))).ShouldBe(("hours", "missing"));
        (await WrongAsync(orla, id, Row(("kind", "oneOff"), ("amount", 15)))).ShouldBe(("due", "missing"));
        (await WrongAsync(orla, id, Row(("kind", "allowance"), ("amount", -4)))).ShouldBe(("amount", "out-of-range"));
        (await WrongAsync(orla, id, Row(("kind", "allowance"), ("amount", 1e12)))).Cell.ShouldBe("amount");
        await orla.SaveAsync(id, Records.Fix(Row(("kind", "allowance"), ("amount", 46), ("until", "2027-06-30")), "nights"));
        (await WrongAsync(orla, id, Row(("kind", "allowance"), ("amount", 50), ("from", "2027-06-30")))).ShouldBe(("from", "overlaps"));
        await orla.SaveAsync(id, Records.Fix(Row(("kind", "allowance"), ("amount", 50), ("from", "2027-07-01")), "nights"));
    }

    [Fact]
    public async Task Whose_hours_are_fixed_is_paid_by_days_and_not_by_the_roster()
    {
        using var orla = await firm.As("orla");
        var id = await HandAsync(orla, "Fixed", start: "2027-03-10");
        (await ReadAsync(orla, id, []))["firstPay"]!.Text("method").ShouldBe("rosteredHours");
        (await ReadAsync(orla, id, new() { ["hours_arise"] = "fixed" }))["firstPay"]!.Text("method").ShouldBe("workingDays");
        (await ReadAsync(orla, id, new() { ["hours_arise"] = "clocked" }))["firstPay"]!.Text("method").ShouldBe("rosteredHours");
    }

    private static string[] News(JsonNode line) => [.. line["news"]!.AsArray().Select(n => $"{n!.Text("kind")} {n!.Text("day")}")];

    private static Dictionary<string, object?> Row(params (string Column, object Value)[] cells)
    {
        var row = Guid.NewGuid();
        return cells.ToDictionary(c => $"pay_elements.{c.Column}@{row:D}", c => (object?)c.Value);
    }

    private static Dictionary<string, object?> Split(string costCentre, decimal percent)
    {
        var row = Guid.NewGuid();
        return new() { [$"cost_split.cost_centre@{row:D}"] = costCentre, [$"cost_split.percent@{row:D}"] = percent };
    }

    private static async Task<(string Cell, string Code)> WrongAsync(Caller caller, string id, Dictionary<string, object?> changes)
    {
        using var answer = await caller.ChangeAsync(id, Records.Fix(changes, "to try it"));
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, await answer.Content.ReadAsStringAsync());
        var (pointer, code) = (await answer.ErrorsAsync()).First();
        return (pointer.Split('.', '@')[1], code);
    }

    private static async Task<JsonNode> ReadAsync(Caller caller, string employment, Dictionary<string, object?> changes)
    {
        using var answer = await caller.SendAsync("POST", $"/api/records/{employment}/readings", new { changes });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }

    private static async Task<JsonNode?> CentreAsync(Caller caller, string code) =>
        (await RunAsync(caller))["totals"]!["costCentres"]!.AsArray().SingleOrDefault(c => (string?)c!["code"] == code);
}
