using Fid.Core.Clock;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Clock;

public class ShiftCycleTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly ShiftCycle Watch = new(new(2027, 3, 25), ["E", "E", "N", "N", "-", "-", "-", "-"], new Dictionary<string, Shift>
    {
        ["E"] = new(new(6, 0), new(14, 0), 30),
        ["N"] = new(new(22, 0), new(6, 0), 30),
    });

    [Fact]
    public void The_night_the_clocks_go_forward_is_an_hour_shorter_and_the_autumn_one_an_hour_longer()
    {
        var spring = Watch.Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 3, 25), new(2027, 3, 29)).Answer!;
        spring.Days.Select(d => (d.Shift, d.PaidMinutes)).ShouldBe([("E", 450), ("E", 450), ("N", 390), ("N", 450), (null, 0)]);
        spring.PaidMinutes.ShouldBe(1740);
        spring.Days[2].End!.Value.ToString("uuuu-MM-dd'T'HH:mmo<m>", null).ShouldBe("2027-03-28T06:00+01:00");
        var autumn = new ShiftCycle(new(2027, 10, 30), ["N"], Watch.Shifts).Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 10, 30), new(2027, 10, 30)).Answer!;
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

    [Fact]
    public void The_cycle_runs_backwards_too_and_every_eighth_day_is_alike()
    {
        Watch.LetterOn(new(2027, 3, 24)).ShouldBe("-");
        for (var i = -400; i < 400; i++) Watch.LetterOn(new LocalDate(2027, 3, 25).PlusDays(i)).ShouldBe(Watch.LetterOn(new LocalDate(2027, 3, 25).PlusDays(i + 8)));
    }

    [Fact]
    public void A_letter_without_a_shift_and_days_the_wrong_way_round_are_refused_together() =>
        (Watch with { Days = ["E", "X"] }).Roster(Dublin, new HashSet<LocalDate>(), OnHoliday.Off, new(2027, 3, 2), new(2027, 3, 1)).Problems.Select(p => p.Path).ShouldBe(["/pattern/days/1", "/to"]);
}
