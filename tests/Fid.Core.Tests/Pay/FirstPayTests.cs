using System.Globalization;
using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;
using NodaTime.Text;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>Fortnights from 4 January 2027 are paid five days after their end; the cut-off lies four working days before. 17 March is a holiday of those
/// who pay, and not of those who are paid.</summary>
public class FirstPayTests
{
    private static readonly WorkCalendar Office = new(RestMask.Weekend, [new LocalDate(2027, 3, 17)]),
        Weekdays = new(RestMask.Weekend, []);

    private static readonly PayGroupTerms Fortnights = new(PayPeriod.Fortnight, new LocalDate(2027, 1, 4), 5, 4, Office),
        Months = new(PayPeriod.Month, null, 0, 3, Office);

    [Fact]
    public void Who_is_approved_after_the_cut_off_is_paid_with_the_next_run_and_what_is_owed_comes_with_it()
    {
        var pay = Of(Fortnights, "2027-03-22", "2027-04-06", 1250, PartMethod.WorkingDays);
        pay.FirstPeriod.Start.ShouldBe(new LocalDate(2027, 3, 15));
        pay.PaidWith.ShouldBe(new PayRun(new(2027, 3, 29), new(2027, 4, 11), new(2027, 4, 16), new(2027, 4, 12)));
        (pay.Part, pay.Whole).ShouldBe((5, 10));
        pay.Lines.ShouldBe([
            new FirstPayLine(new(2027, 3, 15), 625, true, "5 of 10 working days: 5 × 1250.00 ÷ 10 = 625.00."),
            new FirstPayLine(new(2027, 3, 29), 1250, false, "A whole period: 1250.00."),
        ]);
        pay.Total.ShouldBe(1875);
    }

    [Theory]
    // On the day of the cut-off it is not missed; on the day after it is.
    [InlineData("2027-03-22", "2027-03-29", "2027-04-02", 1)]
    [InlineData("2027-03-22", "2027-03-30", "2027-04-16", 2)]
    // Approved long before: with the run of the period itself, never with an earlier one.
    [InlineData("2027-03-22", "2026-12-01", "2027-04-02", 1)]
    // Approved long after: every run between comes as arrears.
    [InlineData("2027-03-22", "2027-05-20", "2027-05-28", 5)]
    // The last day of a period, and the first of the next.
    [InlineData("2027-03-28", "2027-03-01", "2027-04-02", 1)]
    [InlineData("2027-03-29", "2027-03-01", "2027-04-16", 1)]
    public void Is_paid_with_the_first_run_whose_cut_off_is_not_before_the_approval(string start, string approved, string payDay, int periods)
    {
        var pay = Of(Fortnights, start, approved, 1250, PartMethod.CalendarDays);
        pay.PaidWith.PayDate.ShouldBe(Day(payDay));
        pay.Lines.Select(l => l.IsArrears).ShouldBe(Enumerable.Range(1, periods).Select(i => i < periods));
        pay.Lines.Skip(1).ShouldAllBe(l => l.Amount == 1250);
    }

    [Theory]
    [InlineData(PartMethod.CalendarDays, "2027-02-15", 14, 28, "1500.00")]
    [InlineData(PartMethod.WorkingDays, "2027-02-15", 10, 20, "1500.00")]
    // 10 days at a 260th of 36,000 each.
    [InlineData(PartMethod.Annual260, "2027-02-15", 10, 260, "1384.62")]
    [InlineData(PartMethod.CalendarDays, "2028-02-29", 1, 29, "103.45")]
    [InlineData(PartMethod.WorkingDays, "2027-02-28", 0, 20, "0.00")]
    [InlineData(PartMethod.CalendarDays, "2027-02-01", 28, 28, "3000.00")]
    public void Of_the_first_period_the_days_from_the_start_on_are_paid(PartMethod method, string start, int part, int whole, string amount)
    {
        var pay = Of(Months, start, "2027-02-01", 3000, method);
        (pay.Part, pay.Whole).ShouldBe((part, whole));
        pay.Total.ToString(CultureInfo.InvariantCulture).ShouldBe(amount);
    }

    [Fact]
    public void A_period_in_which_nobody_works_pays_nothing_of_its_part() =>
        Pay(
            new FirstPayQuestion(
                Fortnights,
                new(2027, 3, 22),
                new(2027, 3, 1),
                new WorkCalendar(RestMask.Weekend, Enumerable.Range(15, 14).Select(d => new LocalDate(2027, 3, d))),
                1250,
                PartMethod.WorkingDays
            )
        )
            .Total.ShouldBe(0);

    [Theory]
    [InlineData("2027-01-03", "2027-01-01", "1250", "/start")]
    [InlineData("2027-03-22", "2027-01-01", "-0.01", "/amountPerPeriod")]
    [InlineData("2027-03-22", "2027-01-01", "1000000000000.01", "/amountPerPeriod")]
    [InlineData("9999-12-31", "2027-01-01", "1250", "/start")]
    [InlineData("2027-03-22", "9999-12-31", "1250", "/approvedOn")]
    public void Says_what_is_wrong(string start, string approved, string amount, string path) =>
        FirstPay
            .Of(
                new FirstPayQuestion(
                    Fortnights,
                    Day(start),
                    Day(approved),
                    Weekdays,
                    decimal.Parse(amount, CultureInfo.InvariantCulture),
                    PartMethod.CalendarDays
                )
            )
            .Problems.ShouldHaveSingleItem()
            .Path.ShouldBe(path);

    [Fact]
    public void The_cut_off_may_lie_years_before_its_pay_day()
    {
        var terms = Months with { CutOffWorkingDays = 366 };
        var pay = Pay(new FirstPayQuestion(terms, new(2027, 3, 1), new(2027, 3, 1), Weekdays, 100, PartMethod.CalendarDays));
        pay.PaidWith.CutOff.ShouldBeGreaterThanOrEqualTo(new LocalDate(2027, 3, 1));
        terms.Periods(pay.PaidWith.Start.PlusDays(-1), pay.PaidWith.Start.PlusDays(-1)).Answer!.Single().CutOff.ShouldBeLessThan(new LocalDate(2027, 3, 1));
    }

    [Fact]
    public void A_start_a_day_later_never_pays_more_and_a_later_approval_never_pays_earlier() =>
        Gen.Select(
                Gen.OneOf(PartMethod.CalendarDays, PartMethod.WorkingDays, PartMethod.Annual260),
                Gen.Int[0, 400],
                Gen.Int[0, 400],
                Gen.OneOf(PayPeriod.Week, PayPeriod.Fortnight, PayPeriod.FourWeeks, PayPeriod.HalfMonth, PayPeriod.Month)
            )
            .Sample(
                (method, start, approved, every) =>
                {
                    var terms = new PayGroupTerms(every, new LocalDate(2027, 1, 1), 3, 2, Office);
                    FirstPay On(int day, int by) =>
                        Pay(
                            new FirstPayQuestion(
                                terms,
                                new LocalDate(2027, 1, 1).PlusDays(day),
                                new LocalDate(2027, 1, 1).PlusDays(by),
                                Weekdays,
                                999.99m,
                                method
                            )
                        );
                    var pay = On(start, approved);
                    pay.Total.ShouldBe(pay.Lines.Sum(l => l.Amount));
                    pay.PaidWith.CutOff.ShouldBeGreaterThanOrEqualTo(new LocalDate(2027, 1, 1).PlusDays(approved));
                    On(start, approved + 1).PaidWith.PayDate.ShouldBeGreaterThanOrEqualTo(pay.PaidWith.PayDate);
                    var later = On(start + 1, approved);
                    if (later.FirstPeriod == pay.FirstPeriod)
                        later.Lines[0].Amount.ShouldBeLessThanOrEqualTo(pay.Lines[0].Amount);
                },
                iter: 2_000
            );

    private static FirstPay Of(PayGroupTerms terms, string start, string approved, decimal amount, PartMethod method) =>
        Pay(new FirstPayQuestion(terms, Day(start), Day(approved), Weekdays, amount, method));

    private static FirstPay Pay(FirstPayQuestion question) => FirstPay.Of(question).Answer!;

    private static LocalDate Day(string text) => LocalDatePattern.Iso.Parse(text).Value;
}
