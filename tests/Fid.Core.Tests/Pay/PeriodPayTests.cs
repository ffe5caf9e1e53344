using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>What single periods pay in which something begins, changes or ends.</summary>
public class PeriodPayTests
{
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);
    private static readonly PayGroupTerms Months = new(PayPeriod.Month, new LocalDate(2027, 1, 1), 5, 4, Weekdays);
    private static readonly PayRun March = Months.Periods(new(2027, 3, 1), new(2027, 3, 1)).Answer!.Single(),
        April = Months.Periods(new(2027, 4, 1), new(2027, 4, 1)).Answer!.Single();

    private static readonly FirstPayQuestion SinceLong = new(
        Months,
        new LocalDate(2024, 5, 6),
        new LocalDate(2024, 5, 1),
        Weekdays,
        2300,
        PartMethod.WorkingDays
    );

    [Fact]
    public void A_raise_in_the_middle_shares_the_period_out_and_says_how()
    {
        var raised = SinceLong with { Later = [new AmountFrom(new(2027, 3, 15), 2530)] };
        var paid = Of(raised, March);
        // 10 of 23 working days lie before the 15th.
        paid.Amount.ShouldBe(1000m + 1430m);
        paid.Working.ShouldBe(
            "10 of 23 working days: 10 × 2300.00 ÷ 23 = 1000.00. 13 of 23 working days: 13 × 2530.00 ÷ 23 = 1430.00.",
            "each amount has its sentence"
        );
        Of(raised, April).Working.ShouldBe("A whole period: 2530.00.");
        Of(raised with { Later = [new AmountFrom(new(2027, 3, 1), 2530)] }, March).Working.ShouldBe("A whole period: 2530.00.", "from its first day on");
        Of(raised with { Later = [new AmountFrom(new(2027, 4, 1), 2530)] }, March).Amount.ShouldBe(2300);
    }

    [Theory]
    [InlineData(PartMethod.CalendarDays, "2027-03-16", 2300.0 * 16 / 31)]
    [InlineData(PartMethod.WorkingDays, "2027-03-16", 2300.0 * 12 / 23)]
    [InlineData(PartMethod.Annual260, "2027-03-16", 2300.0 * 12 * 12 / 260)]
    [InlineData(PartMethod.WorkingDays, "2027-03-31", 2300.0)]
    [InlineData(PartMethod.Annual260, "2027-03-31", 2300.0)]
    [InlineData(PartMethod.WorkingDays, "2029-01-01", 2300.0)]
    [InlineData(PartMethod.CalendarDays, "2027-03-01", 2300.0 / 31)]
    public void Of_the_last_period_the_days_up_to_the_last_are_paid(PartMethod method, string end, double amount) =>
        Of(SinceLong with { Method = method, End = NodaTime.Text.LocalDatePattern.Iso.Parse(end).Value }, March).Amount.ShouldBe(Money.Round((decimal)amount));

    [Fact]
    public void Start_raise_and_end_may_fall_into_one_period()
    {
        var brief = SinceLong with
        {
            Start = new LocalDate(2027, 3, 8),
            End = new LocalDate(2027, 3, 19),
            Later = [new AmountFrom(new(2027, 3, 15), 2530), new AmountFrom(new(2027, 3, 22), 9999)],
        };
        var paid = Of(brief, March);
        (paid.Share, paid.Amount).ShouldBe((new Share(10, 23), 500m + 550m));
        // By the 260th of a year each day has its price.
        Of(brief with { Method = PartMethod.Annual260 }, March).Amount.ShouldBe(Money.Round(12m * (5 * 2300 + 5 * 2530) / 260));
    }

    [Fact]
    public void What_changes_after_the_start_changes_the_arrears_that_the_first_run_pays()
    {
        var late = SinceLong with { Start = new LocalDate(2027, 3, 1), ApprovedOn = March.CutOff.PlusDays(1), Later = [new AmountFrom(new(2027, 4, 1), 2530)] };
        var first = FirstPay.Of(late).Answer!;
        first.Lines.Select(l => (l.Amount, l.IsArrears)).ShouldBe([(2300, true), (2530, false)]);
        first.PaidBy(March).ShouldBeEmpty();
        first.PaidBy(April).ShouldBe([March, April]);
        var may = Months.Periods(new(2027, 5, 1), new(2027, 5, 1)).Answer!.Single();
        first.PaidBy(may).ShouldBe([may]);
        FirstPay.Of(late with { Later = [new(new(2027, 4, 1), 1), new(new(2027, 4, 2), -1)] }).Problems.ShouldHaveSingleItem().Path.ShouldBe("/later/1/amount");
    }

    [Fact]
    public void An_allowance_that_ends_in_the_middle_is_paid_in_part_beside_whole_base_pay()
    {
        PayComponent[] components = [new("BASE", ComponentKind.Earning, Amount: 0), new("ALLOW", ComponentKind.Earning, Amount: 0)];
        var allowance = new PayElement(Guid.NewGuid(), PayElementKind.Allowance, 46);
        var slip = Payslip.Of(SinceLong, Paid(allowance with { Until = new(2027, 3, 14) }), [March, April]).Answer!;
        slip.Lines.Select(l => l.Amount).ShouldBe([4600, 20]);
        Payslip.Of(SinceLong, Paid(allowance), [March]).Answer!.Gross.ShouldBe(2346);

        PaidComponents Paid(PayElement element) => new("BASE", [("ALLOW", PaidElement.Over(SinceLong.Start, [], _ => ([element], 0)).Single())], components);
    }

    [Fact]
    public void However_a_period_is_shared_out_the_same_amount_pays_the_same() =>
        Gen.Select(Gen.Int[0, 500_000], Gen.Int[1, 30].Array[0, 5], Gen.Enum<PartMethod>().Where(m => m != PartMethod.RosteredHours))
            .Sample(
                (cents, days, method) =>
                {
                    var whole = SinceLong with { AmountPerPeriod = cents / 100m, Method = method };
                    var cut = whole with { Later = [.. days.Distinct().Order().Select(d => new AmountFrom(March.Start.PlusDays(d), whole.AmountPerPeriod))] };
                    Of(cut, March).Amount.ShouldBe(Of(whole, March).Amount);
                }
            );

    private static PeriodPay Of(FirstPayQuestion question, PayRun run) => PeriodPay.Of(question, run).Answer!;
}
