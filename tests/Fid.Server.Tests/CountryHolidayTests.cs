using Fid.Acts.Calendars;
using Fid.Core.Calendars;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Holidays that starter calendars begin with.</summary>
public class CountryHolidayTests
{
    public static readonly TheoryData<string> Countries = [.. CountryHolidays.Countries];

    [Theory]
    [MemberData(nameof(Countries))]
    public void What_is_written_of_a_country_is_read_again_and_gives_each_year_its_days(string country)
    {
        var written = CountryHolidays.Of(country, 2027);
        written.Count.ShouldBeGreaterThan(3);
        var rules = written.Select(h => HolidayRule.Read(h.When).ShouldNotBeNull(h.When)).ToList();
        // Each year has about as many as the next: a rule that holds by chance, or dates that end too soon, would show.
        var counts = Enumerable.Range(2027, 5).Select(y => rules.Select(r => r.In(y)).OfType<NodaTime.LocalDate>().Distinct().Count()).ToList();
        (counts.Max() - counts.Min()).ShouldBeLessThanOrEqualTo(2, string.Join(' ', counts));
        written.ShouldAllBe(h => !h.Name.Contains(';') && h.Name.Length > 0);
    }

    [Theory]
    [InlineData("DE", "--10-03")]
    [InlineData("DE", "easter+39")]
    [InlineData("IE", "--03-17")]
    [InlineData("IE", "--05 1MO")]
    [InlineData("US", "--11 4TH")]
    [InlineData("GB", "--05 -1MO")]
    [InlineData("FR", "--07-14")]
    public void A_day_that_comes_back_by_a_rule_is_written_as_that_rule(string country, string rule) =>
        CountryHolidays.Of(country, 2027).Select(h => h.When).ShouldContain(rule);

    [Theory]
    [InlineData("Europe/Dublin", "IE")]
    [InlineData("Europe/Berlin", "DE")]
    [InlineData("America/Chicago", "US")]
    [InlineData("Asia/Kathmandu", null)]
    [InlineData("Etc/UTC", null)]
    public void A_time_zone_is_of_a_country_or_of_none_that_is_known(string zone, string? country) => CountryHolidays.OfTimeZone(zone).ShouldBe(country);
}
