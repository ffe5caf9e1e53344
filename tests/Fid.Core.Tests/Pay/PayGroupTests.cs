using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class PayGroupTests
{
    private static readonly WorkCalendar Office = new(RestMask.Weekend, [new LocalDate(2027, 3, 17)]);

    [Fact]
    public void Fortnights_pay_five_days_after_the_end_with_the_cut_off_four_working_days_before()
    {
        var runs = new PayGroupTerms(PayPeriod.Fortnight, new LocalDate(2027, 1, 4), 5, 4, Office).Periods(new(2027, 3, 22), new(2027, 4, 11)).Answer!;
        runs.ShouldBe([
            new PayRun(new(2027, 3, 15), new(2027, 3, 28), new(2027, 4, 2), new(2027, 3, 29)),
            new PayRun(new(2027, 3, 29), new(2027, 4, 11), new(2027, 4, 16), new(2027, 4, 12)),
        ]);
    }

    [Theory]
    [InlineData(PayPeriod.HalfMonth, null, "2027-02-10", "2027-03-01", "2027-02-01–2027-02-15 2027-02-16–2027-02-28 2027-03-01–2027-03-15")]
    [InlineData(PayPeriod.HalfMonth, null, "2027-02-15", "2027-02-16", "2027-02-01–2027-02-15 2027-02-16–2027-02-28")]
    [InlineData(PayPeriod.HalfMonth, "2027-01-15", "2027-01-01", "2027-01-16", "2027-01-01–2027-01-15 2027-01-16–2027-01-31")]
    [InlineData(PayPeriod.HalfMonth, "2027-01-16", "2027-01-01", "2027-01-31", "2027-01-16–2027-01-31")]
    [InlineData(PayPeriod.Month, null, "2028-02-29", "2028-03-01", "2028-02-01–2028-02-29 2028-03-01–2028-03-31")]
    [InlineData(PayPeriod.Month, "2027-01-26", "2027-01-01", "2027-03-01", "2027-01-26–2027-02-25 2027-02-26–2027-03-25")]
    [InlineData(PayPeriod.Month, "2027-01-31", "2027-02-15", "2027-04-01", "2027-01-31–2027-02-27 2027-02-28–2027-03-30 2027-03-31–2027-04-29")]
    [InlineData(PayPeriod.Year, "2026-04-06", "2027-04-05", "2027-04-06", "2026-04-06–2027-04-05 2027-04-06–2028-04-05")]
    [InlineData(PayPeriod.Week, "2027-03-01", "2027-02-01", "2027-03-08", "2027-03-01–2027-03-07 2027-03-08–2027-03-14")]
    [InlineData(PayPeriod.FourWeeks, "2027-01-04", "2027-02-01", "2027-02-01", "2027-02-01–2027-02-28")]
    public void Periods_touch_the_days_asked_for(PayPeriod every, string? first, string from, string to, string periods)
    {
        var terms = new PayGroupTerms(every, first is null ? null : Day(first), 0, 0, WorkCalendar.EveryDay);
        string.Join(' ', terms.Periods(Day(from), Day(to)).Answer!.Select(r => $"{r.Start:uuuu-MM-dd}–{r.End:uuuu-MM-dd}")).ShouldBe(periods);
    }

    [Fact]
    public void A_pay_day_on_a_rest_day_moves_back_and_takes_the_cut_off_with_it()
    {
        // The period ends on Sunday 14 March; two days later is the 16th, and of three days the third is the holiday.
        var run = new PayGroupTerms(PayPeriod.Week, new LocalDate(2027, 3, 8), 3, 2, Office).Periods(new(2027, 3, 8), new(2027, 3, 8)).Answer!.Single();
        (run.PayDate, run.CutOff).ShouldBe((new LocalDate(2027, 3, 16), new LocalDate(2027, 3, 12)));
    }

    [Theory]
    [InlineData(PayPeriod.Week, "2027-03-01", "2027-04-01", "/payGroup/firstPeriodStart")]
    [InlineData(PayPeriod.Day, "2027-03-01", "2027-04-01", "/payGroup/every")]
    [InlineData(PayPeriod.Month, "2027-04-01", "2027-03-01", "/to")]
    [InlineData(PayPeriod.Month, "0001-01-01", "9999-01-01", "/to")]
    public void Refuses(PayPeriod every, string from, string to, string path) =>
        new PayGroupTerms(every, null, 0, 0, Office).Periods(Day(from), Day(to)).Problems.Single().Path.ShouldBe(path);

    [Theory]
    [InlineData(PayPeriod.Month, "9999-11-01", "9999-11-30", 0, 0, 1)]
    [InlineData(PayPeriod.Month, "9999-12-01", "9999-12-31", 0, 0, 0)] // its end would need the year after
    [InlineData(PayPeriod.Year, "9998-01-01", "9998-12-31", 0, 0, 1)]
    [InlineData(PayPeriod.HalfMonth, "9999-12-01", "9999-12-15", 0, 0, 1)]
    [InlineData(PayPeriod.Month, "9999-11-01", "9999-11-30", 40, 0, 0)]
    [InlineData(PayPeriod.Month, "0001-01-01", "0001-01-31", 0, 60, 0)]
    public void At_the_ends_of_time_there_are_periods_as_long_as_all_their_days_are_there(
        PayPeriod every,
        string from,
        string to,
        int pay,
        int cutOff,
        int count
    )
    {
        var answer = new PayGroupTerms(every, null, pay, cutOff, WorkCalendar.EveryDay).Periods(Day(from), Day(to));
        (answer.Answer?.Count ?? 0).ShouldBe(count);
        if (count == 0)
            (answer.Problems.Single().Path, answer.Problems.Single().Code).ShouldBe(("/to", "out-of-range"));
    }

    [Fact]
    public void Periods_follow_on_each_other_without_gap_or_overlap_from_the_first_on() =>
        Gen.Select(
                Gen.OneOf(PayPeriod.Week, PayPeriod.Fortnight, PayPeriod.FourWeeks, PayPeriod.HalfMonth, PayPeriod.Month, PayPeriod.Year),
                Gen.Int[0, 1500],
                Gen.Int[0, 4000],
                Gen.Int[0, 800]
            )
            .Sample(
                (every, first, from, length) =>
                {
                    var begin = new LocalDate(2019, 1, 1).PlusDays(first);
                    var ask = new LocalDate(2018, 1, 1).PlusDays(from);
                    var runs = new PayGroupTerms(every, begin, 3, 2, Office).Periods(ask, ask.PlusDays(length)).Answer!;
                    foreach (var (a, b) in runs.Zip(runs.Skip(1)))
                        b.Start.ShouldBe(a.End.PlusDays(1));
                    foreach (var run in runs)
                    {
                        (run.End >= ask && run.Start <= ask.PlusDays(length)).ShouldBeTrue();
                        Office.IsWorking(run.PayDate).ShouldBeTrue();
                        if (run.CutOff != run.PayDate)
                            Office.Count(run.CutOff, run.PayDate).ShouldBe(3);
                    }
                    if (runs.Count > 0 && every != PayPeriod.HalfMonth)
                        (runs[0].Start <= ask || runs[0].Start == begin).ShouldBeTrue();
                    if (ask > begin.PlusYears(2))
                        (runs[0].Start <= ask && runs[^1].End >= ask.PlusDays(length)).ShouldBeTrue();
                }
            );

    private static LocalDate Day(string iso) => NodaTime.Text.LocalDatePattern.Iso.Parse(iso).Value;
}
