using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Clock;
using Fid.Core.Lists;
using Fid.Core.Pay;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>The components of the demonstration: an allowance and a supplement for crews, a pension with floor and cap, a levy in slices.</summary>
public class PayslipTests
{
    private static readonly LocalDate Day = new(2027, 3, 22);
    private static readonly WorkCalendar Office = new(RestMask.Weekend, [new LocalDate(2027, 3, 17)]);
    private static readonly PayGroupTerms Fortnights = new(PayPeriod.Fortnight, new LocalDate(2027, 1, 4), 5, 4, Office);

    private static readonly EntryContent[] Firm =
    [
        Entry("BASE", ("kind", "earning"), ("stands_for", "basePay"), ("amount", 1250m)),
        Entry("ALLOW", ("kind", "earning"), ("stands_for", "allowance"), ("amount", 0m)),
        Entry("ISLE", ("kind", "earning"), ("percent", 4m), ("of", new[] { "BASE" }), ("groups", new[] { "crew" })),
        Entry("PENS", ("kind", "deduction"), ("percent", 5m), ("of", new[] { "BASE", "ISLE" }), ("floor", 240m), ("cap", 1600m)),
        Entry(
            "LEVY",
            ("kind", "deduction"),
            ("of", new[] { "BASE", "ALLOW", "ISLE", "PENS" }),
            ("brackets", new PayBracket[] { new(0, 12000), new(18, 30000), new(32) }),
            ("basis", "annual")
        ),
        Entry("PENS-ER", ("kind", "employerCost"), ("percent", 6m), ("of", new[] { "BASE", "ISLE" })),
    ];

    [Fact]
    public void The_first_run_pays_each_period_by_itself_down_to_what_reaches_the_bank()
    {
        var slip = First(Question(1250, "2027-04-06"), Crew(allowance: 0)).Answer!;
        // 625 of the period of 15 March: 25.00 supplement; pension 5 % of 410; levy on 629.50 × 26 = 16367.00: 18 % of 4367 ÷ 26.
        var of = slip.Lines.ToDictionary(l => l.Code);
        (of["BASE"].Amount, of["ISLE"].Amount, of["PENS"].Amount, of["LEVY"].Amount).ShouldBe((1875m, 75m, 20.50m + 53m, 30.23m + 154.42m));
        of["LEVY"].Working.Count.ShouldBe(2);
        of["BASE"].Working.ShouldBe(["5 of 10 working days: 5 × 1250.00 ÷ 10 = 625.00.", "A whole period: 1250.00."]);
        (slip.Gross, slip.Net, slip.EmployerCost).ShouldBe((1950m, 1950m - 20.50m - 53m - 30.23m - 154.42m, 1950m + 39m + 78m));
    }

    [Fact]
    public void What_the_record_states_for_a_period_is_paid_in_part_where_the_period_is()
    {
        var slip = First(Question(1250, "2027-03-29"), Crew(allowance: 30)).Answer!;
        slip.Lines.Single(l => l.Code == "ALLOW").ShouldSatisfyAllConditions(l => l.Amount.ShouldBe(15), l => l.Working.Single().ShouldContain("30.00"));
        slip.Gross.ShouldBe(625 + 15 + 25);
    }

    [Fact]
    public void In_German_it_is_worked_out_in_German() =>
        First(Question(1250, "2027-03-29"), Crew(0), PayWording.German).Answer!.Lines[0].Working.ShouldBe(["5 von 10 Arbeitstage: 5 × 1250,00 ÷ 10 = 625,00."]);

    [Fact]
    public void Trouble_with_the_pay_or_with_a_component_is_told()
    {
        FirstPay.Of(Question(-1, "2027-03-29")).Problems.ShouldHaveSingleItem().Path.ShouldBe("/amountPerPeriod");
        var broken = new PaidComponents("BASE", [], [new PayComponent("BASE", ComponentKind.Earning, Percent: 4, Of: ["GONE"])]);
        First(Question(1, "2027-03-29"), broken with { Base = "OTHER" }).Problems[0].Code.ShouldBe("unknown-code");
    }

    [Fact]
    public void Whoever_is_paid_by_the_hour_is_paid_by_the_hours_of_their_roster()
    {
        // Two days on, two off, from the 15th: seven shifts of the fortnight lie on 15 16 19 20 23 24 27 28, of which four from the 22nd on.
        var cycle = new ShiftCycle(
            new LocalDate(2027, 3, 15),
            ["E", "E", "-", "-"],
            new Dictionary<string, Shift> { ["E"] = new(new LocalTime(6, 0), new LocalTime(14, 0), 30) }
        );
        var roster = new RosterTerms(DateTimeZone.Utc, cycle, new HashSet<LocalDate> { new(2027, 3, 16) }, OnHoliday.Off);
        var question = Question(1250, "2027-03-29") with { Method = PartMethod.RosteredHours };
        var pay = FirstPay.Of(question with { Roster = roster }).Answer!;
        (pay.Part, pay.Whole, pay.Total).ShouldBe((4 * 450, 7 * 450, 714.29m));
        pay.Lines[0].Working.ShouldBe("30 of 52.5 rostered hours: 30 × 1250.00 ÷ 52.5 = 714.29.");
        var idle = FirstPay.Of(question with { Roster = roster with { Cycle = cycle with { Days = ["-"] } } }).Answer!;
        (idle.Total, idle.Lines[0].Working).ShouldBe((0, "Nobody works in the period: 0.00."));
        FirstPay.Of(question).Problems.ShouldHaveSingleItem().Path.ShouldBe("/roster");
        FirstPay
            .Of(question with { Roster = roster with { Cycle = cycle with { Days = ["X"] } } })
            .Problems.ShouldHaveSingleItem()
            .Path.ShouldBe("/roster/pattern/days/0");
    }

    [Fact]
    public void A_raise_never_lowers_net_and_net_and_deductions_are_gross() =>
        Gen.Select(Gen.Int[0, 1_000_000], Gen.Int[0, 100_000], Gen.Int[0, 50_000])
            .Sample(
                (cents, more, allowance) =>
                {
                    var paid = Crew(allowance / 100m);
                    var (before, after) = (Whole(cents / 100m), Whole((cents + more) / 100m));
                    (before.Net + before.Deductions).ShouldBe(before.Gross);
                    // Two lines are rounded, each by half a cent at most.
                    after.Net.ShouldBeGreaterThanOrEqualTo(before.Net - 0.01m);
                    PayPreview Whole(decimal amount) => paid.Whole(PayPeriod.Fortnight, amount, Day).Answer!;
                },
                iter: 3_000
            );

    [Fact]
    public void Components_hold_for_their_groups_and_their_days()
    {
        var office = PayComponentEntry.Of(Firm, "office", Day, Allowance(40))!;
        office.Whole(PayPeriod.Month, 3000, Day).Answer!.Lines.Select(l => l.Amount).Take(3).ShouldBe([3000, 40, 0]);
        EntryContent[] dated = [Firm[0], Entry("BONUS", ("amount", 10m), ("paid_from", "2027-03-22"), ("paid_to", "2027-03-31"))];
        new[] { -1, 0, 9, 10 }.Select(d => PayComponentEntry.Of(dated, "crew", Day.PlusDays(d), [])!.Components[1].Amount).ShouldBe([0, 10, 10, 0]);
        PayComponentEntry.Of([.. Firm.Skip(1)], "crew", Day, []).ShouldBeNull();
        // An allowance for which nothing stands would be left out of net.
        EntryContent[] without = [.. Firm.Where(c => c.Code is not ("ALLOW" or "LEVY"))];
        (PayComponentEntry.Of(without, "crew", Day, Allowance(40)), PayComponentEntry.Of(without, "crew", Day, [])!.Own.Count).ShouldBe((null, 0));
    }

    private static Result<Payslip> First(FirstPayQuestion question, PaidComponents components, PayWording? wording = null) =>
        Payslip.Of(question, components, FirstPay.Of(question).Answer!.Runs, wording);

    private static PaidComponents Crew(decimal allowance) => PayComponentEntry.Of(Firm, "crew", Day, Allowance(allowance))!;

    private static IReadOnlyList<PaidElement> Allowance(decimal amount) =>
        PaidElement.Over(Day, [], _ => ([new PayElement(Guid.Empty, PayElementKind.Allowance, amount)], 0));

    private static FirstPayQuestion Question(decimal amount, string approved) =>
        new(Fortnights, Day, NodaTime.Text.LocalDatePattern.Iso.Parse(approved).Value, new WorkCalendar(RestMask.Weekend, []), amount, PartMethod.WorkingDays);

    private static EntryContent Entry(string code, params (string Key, object Value)[] values) =>
        new(code, code, null, values.ToDictionary(v => v.Key, v => v.Value));
}
