using CsCheck;
using Fid.Core.Calendars;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Calendars;

public class HolidayRuleTests
{
    [Theory]
    [InlineData("2027-05-17", 2027, "2027-05-17")]
    [InlineData("2027-05-17", 2028, null)]
    [InlineData("--03-17", 2030, "2030-03-17")]
    [InlineData("--02-29", 2028, "2028-02-29")]
    [InlineData("--02-29", 2027, null)]
    [InlineData("--05 1MO", 2027, "2027-05-03")]
    [InlineData("--05 -1MO", 2027, "2027-05-31")]
    [InlineData("--05 5MO", 2027, "2027-05-31")]
    [InlineData("--06 5MO", 2027, null)]
    [InlineData("--08 4SU", 2027, "2027-08-22")]
    [InlineData("easter", 2027, "2027-03-28")]
    [InlineData("easter+1", 2024, "2024-04-01")]
    [InlineData("easter-2", 2019, "2019-04-19")]
    [InlineData("easter+100", 2027, "2027-07-06")]
    [InlineData("easter-80", 2027, "2027-01-07")]
    [InlineData("--05 -5MO", 2027, "2027-05-03")]
    [InlineData("--06 -5MO", 2027, null)]
    [InlineData("--05 1SA", 2027, "2027-05-01")]
    [InlineData("easter+49", 2038, "2038-06-13")]
    [InlineData(" EASTER+1 ", 2000, "2000-04-24")]
    public void Falls_on(string text, int year, string? day) => (HolidayRule.Read(text)!.In(year)?.ToString("uuuu-MM-dd", null)).ShouldBe(day);

    [Theory]
    [InlineData("")]
    [InlineData("2027-02-30")]
    [InlineData("--13-01")]
    [InlineData("--04-31")]
    [InlineData("--05 0MO")]
    [InlineData("--05 6MO")]
    [InlineData("--05 --1MO")]
    [InlineData("--05 1XX")]
    [InlineData("easter*2")]
    [InlineData("easter+101")]
    [InlineData("easter-81")]
    [InlineData("whitsun")]
    [InlineData("--0")]
    [InlineData("-")]
    [InlineData("--12")]
    [InlineData("--05 ")]
    [InlineData("--05 M")]
    [InlineData("--05 MO")]
    [InlineData("--05x1MO")]
    [InlineData("--05/17")]
    [InlineData("--05-17x")]
    [InlineData("--05-1")]
    [InlineData("--05-1x")]
    [InlineData("--05-00")]
    [InlineData("x-05-17")]
    [InlineData("x-05 1MO")]
    [InlineData("--00 1MO")]
    public void Is_no_rule(string text) => HolidayRule.Read(text).ShouldBeNull();

    [Fact]
    public void What_is_written_reads_back_and_a_recurring_day_falls_in_its_own_year_at_most_once() =>
        Gen.OneOf(
                Gen.Select(Gen.Int[1, 12], Gen.Int[1, 28]).Select((m, d) => (HolidayRule)new HolidayRule.Yearly(m, d)),
                Gen.Select(Gen.Int[1, 12], Gen.OneOf(1, 2, 3, 4, 5, -1, -2), Gen.Int[1, 7])
                    .Select((m, n, w) => (HolidayRule)new HolidayRule.NthWeekday(m, n, (IsoDayOfWeek)w)),
                Gen.Int[-80, 100].Select(d => (HolidayRule)new HolidayRule.FromEaster(d))
            )
            .Select(Gen.Int[1583, 4000])
            .Sample(
                (rule, year) =>
                {
                    HolidayRule.Read(rule.Text).ShouldBe(rule);
                    if (rule.In(year) is not { } day)
                        return;
                    if (rule is HolidayRule.NthWeekday nth)
                        (day.Month, day.DayOfWeek).ShouldBe((nth.Month, nth.Weekday));
                    if (rule is HolidayRule.FromEaster or HolidayRule.Yearly or HolidayRule.NthWeekday)
                        day.Year.ShouldBe(year);
                    if (rule is HolidayRule.FromEaster easter)
                        day.PlusDays(-easter.Days).DayOfWeek.ShouldBe(IsoDayOfWeek.Sunday);
                }
            );

    // Gauss's reckoning as Lichtenberg completed it: another way to the same day.
    [Fact]
    public void Easter_is_the_same_day_by_another_reckoning()
    {
        for (var year = 1583; year <= 4099; year++)
        {
            var (k, a) = (year / 100, year % 19);
            var s = 2 - (3 * k + 3) / 4;
            var d = (19 * a + 15 + (3 * k + 3) / 4 - (8 * k + 13) / 25) % 30;
            var full = 21 + d - (d + a / 11) / 29;
            var sunday = 7 - (year + year / 4 + s) % 7;
            HolidayRule.Easter(year).ShouldBe(new LocalDate(year, 3, 1).PlusDays(full + 7 - (full - sunday) % 7 - 1));
        }
    }

    [Fact]
    public void A_holiday_of_several_days_lasts_through_rest_days() =>
        new Holiday(HolidayRule.Read("--07 1MO")!, "Shutdown", 12).In(2027).ShouldBe(Enumerable.Range(5, 12).Select(d => new LocalDate(2027, 7, d)));
}
