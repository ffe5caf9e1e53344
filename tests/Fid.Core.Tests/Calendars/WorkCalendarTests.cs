using CsCheck;
using Fid.Core.Calendars;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Calendars;

public class WorkCalendarTests
{
    private static readonly WorkCalendar Office = Make("0000011", "2027-05-17");

    // A mask with at least one working day, holidays within two years, a date among them.
    private static readonly Gen<(WorkCalendar Calendar, LocalDate Date, int Days)> Any =
        from mask in Gen.Char["01"].Array[7].Where(m => m.Contains('0'))
        from holidays in Gen.Int[-400, 400].Array[0, 60]
        from date in Gen.Int[-300, 300]
        from days in Gen.Int[-150, 150]
        select (Make(new string(mask), [.. holidays.Select(Date)]), Date(date), days);

    [Theory]
    [InlineData("2027-05-14", 3, "2027-05-20")] // over a weekend and the holiday on Monday
    [InlineData("2027-05-14", 0, "2027-05-14")]
    [InlineData("2027-05-15", 0, "2027-05-15")] // nothing added to a Saturday is that Saturday
    [InlineData("2027-05-15", 1, "2027-05-18")]
    [InlineData("2027-05-18", -1, "2027-05-14")]
    [InlineData("2027-05-17", -1, "2027-05-14")]
    [InlineData("2027-01-01", 10000, "2065-05-04")]
    public void Adds_working_days(string date, int days, string expected) => Office.Add(Iso(date), days).ShouldBe(Iso(expected));

    [Theory]
    [InlineData("2027-05-10", "2027-05-21", 9)]
    [InlineData("2027-05-21", "2027-05-10", -9)] // reversed: the same with a minus
    [InlineData("2027-05-15", "2027-05-16", 0)]
    [InlineData("2027-05-14", "2027-05-14", 1)] // both ends count
    public void Counts_working_days(string from, string to, int expected) => Office.Count(Iso(from), Iso(to)).ShouldBe(expected);

    [Theory]
    [InlineData("2027-05-17", RollRule.Following, "2027-05-18")]
    [InlineData("2027-05-17", RollRule.Preceding, "2027-05-14")]
    [InlineData("2027-05-18", RollRule.Following, "2027-05-18")]
    [InlineData("2027-07-31", RollRule.ModifiedFollowing, "2027-07-30")] // Monday would be August
    [InlineData("2027-08-01", RollRule.ModifiedFollowing, "2027-08-02")]
    public void Rolls_off_rest_days(string date, RollRule rule, string expected) => Office.Roll(Iso(date), rule).ShouldBe(Iso(expected));

    [Fact]
    public void Holidays_may_repeat_be_unordered_and_fall_on_rest_days() =>
        Make("0000011", "2027-05-22", "2027-05-17", "2027-05-17", "2027-05-03").Count(Iso("2027-05-01"), Iso("2027-05-31")).ShouldBe(19);

    [Fact]
    public void Says_when_the_answer_leaves_the_years_there_are()
    {
        Office.Add(Iso("9999-12-31"), 1).ShouldBeNull();
        Office.Add(Iso("0001-01-01"), -1).ShouldBeNull();
        Office.Add(Iso("2027-01-01"), int.MaxValue).ShouldBeNull();
        Office.Roll(Iso("9999-12-31").PlusDays(0), RollRule.Following).ShouldBe(Iso("9999-12-31")); // a Friday
    }

    [Theory]
    [InlineData("1111111")]
    [InlineData("000001")]
    [InlineData("000001x")]
    [InlineData(null)]
    public void Refuses_masks_without_a_working_day_or_of_another_form(string? mask) => RestMask.TryParse(mask, out _).ShouldBeFalse();

    [Fact]
    public void Agrees_with_walking_day_by_day() =>
        Any.Sample(c =>
        {
            c.Calendar.Add(c.Date, c.Days).ShouldBe(Walk(c.Calendar, c.Date, c.Days));
            var to = c.Date.PlusDays(c.Days);
            var (low, high) = c.Days < 0 ? (to, c.Date) : (c.Date, to);
            var counted = Enumerable.Range(0, Period.DaysBetween(low, high) + 1).Count(i => c.Calendar.IsWorking(low.PlusDays(i)));
            c.Calendar.Count(c.Date, to).ShouldBe(c.Days < 0 ? -counted : counted);
        });

    [Fact]
    public void Counting_takes_back_what_adding_did() =>
        Any.Where(c => c.Days > 0)
            .Sample(c =>
            {
                var start = c.Calendar.Roll(c.Date, RollRule.Following)!.Value;
                var end = c.Calendar.Add(start, c.Days)!.Value;
                c.Calendar.IsWorking(end).ShouldBeTrue();
                c.Calendar.Count(start, end).ShouldBe(c.Days + 1);
                c.Calendar.Add(end, -c.Days).ShouldBe(start);
            });

    private static LocalDate Walk(WorkCalendar calendar, LocalDate date, int days)
    {
        for (var left = Math.Abs(days); left > 0; )
        {
            date = date.PlusDays(Math.Sign(days));
            if (calendar.IsWorking(date))
                left--;
        }
        return date;
    }

    private static WorkCalendar Make(string mask, params string[] holidays) => Make(mask, [.. holidays.Select(Iso)]);

    private static WorkCalendar Make(string mask, LocalDate[] holidays)
    {
        RestMask.TryParse(mask, out var rest).ShouldBeTrue();
        return new WorkCalendar(rest!, holidays);
    }

    private static LocalDate Iso(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;

    private static LocalDate Date(int day) => new LocalDate(2027, 6, 1).PlusDays(day);

    [Fact]
    public void A_count_that_leads_out_of_the_calendar_is_no_day() =>
        Gen.Select(Gen.OneOf("0000011", "0111111", "0000000"), Gen.Int[0, 3_652_058], Gen.Long[1L << 23, 1L << 62], Gen.Bool)
            .Sample(
                (rest, day, days, back) =>
                {
                    RestMask.TryParse(rest, out var mask).ShouldBeTrue();
                    var from = new LocalDate(1, 1, 1).PlusDays(day);
                    new WorkCalendar(mask!, [from]).Add(from, back ? -days : days).ShouldBeNull();
                }
            );
}
