using Fid.Core.Clock;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Clock;

public class ShiftCycleTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly ShiftCycle Watch = new(
        new(2027, 3, 25),
        ["E", "E", "N", "N", "-", "-", "-", "-"],
        new Dictionary<string, Shift> { ["E"] = new(new(6, 0), new(14, 0), 30), ["N"] = new(new(22, 0), new(6, 0), 30) }
    );

    [Fact]
    public void The_night_the_clocks_go_forward_is_an_hour_shorter_and_the_autumn_one_an_hour_longer()
    {
        var spring = Watch.Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 3, 25), new(2027, 3, 29)).Answer!;
        spring.Days.Select(d => (d.Shift, d.PaidMinutes)).ShouldBe([("E", 450), ("E", 450), ("N", 390), ("N", 450), (null, 0)]);
        spring.PaidMinutes.ShouldBe(1740);
        spring.Days[2].End!.Value.ToString("uuuu-MM-dd'T'HH:mmo<m>", null).ShouldBe("2027-03-28T06:00+01:00");
        var autumn = new ShiftCycle(new(2027, 10, 30), ["N"], Watch.Shifts)
            .Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 10, 30), new(2027, 10, 30))
            .Answer!;
        autumn.PaidMinutes.ShouldBe(510);
    }

    [Theory]
    [InlineData(OnHoliday.Off, null, 0)]
    [InlineData(OnHoliday.Worked, "E", 450)]
    public void A_holiday_is_off_or_worked_and_is_marked_either_way(OnHoliday onHoliday, string? shift, int minutes)
    {
        var day = Watch.Roster(Dublin, new HashSet<LocalDate> { new(2027, 3, 26) }, onHoliday, new(2027, 3, 26), new(2027, 3, 26)).Answer!.Days.Single();
        (day.Shift, day.Holiday, day.PaidMinutes).ShouldBe((shift, true, minutes));
    }

    [Theory]
    [InlineData(8, 0, 8, 0, 24 * 60 - 30)] // it ends when it begins: a day later
    [InlineData(8, 0, 8, 1, 0)] // a minute, less the break: never below nothing
    [InlineData(8, 0, 8, 31, 1)]
    [InlineData(8, 0, 7, 59, 24 * 60 - 31)]
    public void A_shift_ends_after_it_begins(int hour, int minute, int endHour, int endMinute, int paid)
    {
        var day = new ShiftCycle(new(2027, 5, 1), ["D"], new Dictionary<string, Shift> { ["D"] = new(new(hour, minute), new(endHour, endMinute), 30) })
            .Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 5, 1), new(2027, 5, 1))
            .Answer!.Days.Single();
        (day.PaidMinutes, day.End!.Value.ToInstant() > day.Start!.Value.ToInstant()).ShouldBe((paid, true));
    }

    [Fact]
    public void A_roster_has_as_many_days_as_it_may_and_a_cycle_too()
    {
        var none = new HashSet<LocalDate>();
        Watch
            .Roster(Dublin, none, OnHoliday.Off, new(2000, 1, 1), new LocalDate(2000, 1, 1).PlusDays(ShiftCycle.MostDays - 1))
            .Answer!.Days.Count.ShouldBe(ShiftCycle.MostDays);
        Watch
            .Roster(Dublin, none, OnHoliday.Off, new(2000, 1, 1), new LocalDate(2000, 1, 1).PlusDays(ShiftCycle.MostDays))
            .Problems.Single()
            .Path.ShouldBe("/to");
        Watch.Roster(Dublin, none, OnHoliday.Off, new(1, 12, 31), new(2, 1, 1)).Problems.Single().Path.ShouldBe("/from");
        Watch.Roster(Dublin, none, OnHoliday.Off, new(9998, 12, 31), new(9998, 12, 31)).Problems.ShouldBeEmpty();
        (Watch with { Days = [.. Enumerable.Repeat("E", ShiftCycle.Longest)] }).Check().ShouldBeEmpty();
        (Watch with { Days = [.. Enumerable.Repeat("E", ShiftCycle.Longest + 1)] }).Check().Single().Path.ShouldBe("/days");
        (Watch with { Days = [] }).Check().Single().Path.ShouldBe("/days");
    }

    [Fact]
    public void The_cycle_runs_backwards_too_and_every_eighth_day_is_alike()
    {
        Watch.LetterOn(new(2027, 3, 24)).ShouldBe("-");
        for (var i = -400; i < 400; i++)
            Watch.LetterOn(new LocalDate(2027, 3, 25).PlusDays(i)).ShouldBe(Watch.LetterOn(new LocalDate(2027, 3, 25).PlusDays(i + 8)));
    }

    [Fact]
    public void A_letter_without_a_shift_and_days_the_wrong_way_round_are_refused_together() =>
        (Watch with { Days = ["E", "X"] })
            .Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 3, 2), new(2027, 3, 1))
            .Problems.Select(p => p.Path)
            .ShouldBe(["/pattern/days/1", "/to"]);
}
