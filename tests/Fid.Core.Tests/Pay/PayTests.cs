using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class PayTests
{
    [Theory]
    [InlineData(17.40, PayPeriod.Hour, 30, 37.5, null, PayPeriod.Fortnight, "27144.00 33930.00 17.4000 1044.00")]
    [InlineData(140, PayPeriod.Day, 30, 37.5, 4, PayPeriod.Month, "29120.00 36400.00 18.6667 2426.67")]
    [InlineData(600, PayPeriod.Week, 37.5, 37.5, null, PayPeriod.Year, "31200.00 31200.00 16.0000 31200.00")]
    [InlineData(2400, PayPeriod.FourWeeks, 37.5, 37.5, null, PayPeriod.HalfMonth, "31200.00 31200.00 16.0000 1300.00")]
    [InlineData(1000.01, PayPeriod.HalfMonth, 40, 40, null, PayPeriod.Week, "24000.24 24000.24 11.5386 461.54")]
    [InlineData(0, PayPeriod.Year, 1, 40, null, PayPeriod.Month, "0.00 0.00 0.0000 0.00")]
    public void Brings_a_rate_to_other_times(double amount, PayPeriod per, double hours, double full, int? days, PayPeriod every, string expected)
    {
        var rate = PayRate.Of((decimal)amount, per, (decimal)hours, (decimal)full, days, every).Answer!;
        FormattableString.Invariant($"{rate.Annual} {rate.FullTimeAnnual} {rate.Hourly} {rate.PerPeriod}").ShouldBe(expected);
    }

    [Fact]
    public void Rounds_half_away_from_zero_and_shows_the_minor_unit()
    {
        Money.Round(2.345m).ShouldBe(2.35m);
        Money.Round(-2.345m).ShouldBe(-2.35m);
        Money.Round(5).ToString(System.Globalization.CultureInfo.InvariantCulture).ShouldBe("5.00");
    }

    [Theory]
    [InlineData(0, 37.5, null, PayPeriod.Hour, PayPeriod.Month, "/weeklyHours")]
    [InlineData(37.5, 169, null, PayPeriod.Hour, PayPeriod.Month, "/fullTimeHours")]
    [InlineData(37.5, 37.5, null, PayPeriod.Day, PayPeriod.Month, "/daysPerWeek")]
    [InlineData(37.5, 37.5, 8, PayPeriod.Hour, PayPeriod.Month, "/daysPerWeek")]
    [InlineData(37.5, 37.5, null, PayPeriod.Hour, PayPeriod.Hour, "/payEvery")]
    public void Says_what_is_wrong_with_a_rate(double hours, double full, int? days, PayPeriod per, PayPeriod every, string path) =>
        PayRate.Of(10, per, (decimal)hours, (decimal)full, days, every).Problems.ShouldHaveSingleItem().Path.ShouldBe(path);

    [Theory]
    [InlineData(168, 168, 7)]
    [InlineData(0.01, 0.01, 1)]
    public void The_most_and_the_least_hours_and_days_of_a_week_are_possible(double hours, double full, int days) =>
        PayRate.Of(10, PayPeriod.Day, (decimal)hours, (decimal)full, days, PayPeriod.Month).Problems.ShouldBeEmpty();

    [Theory]
    [InlineData(168.01, 40, 5, "/weeklyHours")]
    [InlineData(40, 168.01, 5, "/fullTimeHours")]
    [InlineData(-1, 40, 5, "/weeklyHours")]
    [InlineData(40, 40, 0, "/daysPerWeek")]
    public void And_none_beyond(double hours, double full, int days, string path) =>
        PayRate.Of(10, PayPeriod.Day, (decimal)hours, (decimal)full, days, PayPeriod.Month).Problems.ShouldHaveSingleItem().Path.ShouldBe(path);

    [Fact]
    public void Pay_is_from_nothing_to_a_million_million()
    {
        foreach (var (amount, isPossible) in new[] { (0m, true), (Money.Most, true), (-0.01m, false), (Money.Most + 0.01m, false) })
            PayRate.Of(amount, PayPeriod.Year, 40, 40, null, PayPeriod.Month).Problems.Select(p => p.Path).ShouldBe(isPossible ? [] : ["/amount"]);
    }

    [Theory]
    [InlineData(33930, "0.943 0.328 Within")]
    [InlineData(30000, "0.833 0.000 Within")] // both ends are within
    [InlineData(42000, "1.167 1.000 Within")]
    [InlineData(29999.99, "0.833 0.000 Below")]
    [InlineData(45000, "1.250 1.250 Above")]
    public void Compares_pay_with_its_band(double pay, string expected)
    {
        var band = PayBand.Of((decimal)pay, 30000, 36000, 42000).Answer!;
        FormattableString.Invariant($"{band.CompaRatio} {band.Penetration} {band.Position}").ShouldBe(expected);
    }

    [Fact]
    public void A_band_of_a_single_figure_has_no_inside() => PayBand.Of(10, 10, 10, 10).Answer!.Penetration.ShouldBeNull();

    [Fact]
    public void A_band_out_of_order_is_a_problem() => PayBand.Of(10, 30, 20, 10).Problems.Select(p => p.Path).ShouldBe(["/mid", "/max"]);

    [Theory]
    [InlineData(-0.01, 1, 2, 3, "/pay out-of-range")]
    [InlineData(0, 1, 2, 3, "")]
    [InlineData(1_000_000_000_000, 1, 2, 3, "")]
    [InlineData(1_000_000_000_000.01, 1, 2, 3, "/pay out-of-range")]
    [InlineData(1, -1, 2, 3, "/min out-of-range")]
    [InlineData(1, 0, 0, 3, "/mid out-of-range")]
    [InlineData(1, 0, 0.01, 3, "")]
    [InlineData(1, 2, 2, 3, "")]
    [InlineData(1, 2.01, 2, 3, "/mid not-in-order")]
    [InlineData(1, 2, 3, 3, "")]
    [InlineData(1, 2, 3, 2.99, "/max not-in-order")]
    public void A_band_is_above_nothing_and_in_order(double pay, double min, double mid, double max, string problem) =>
        Asked.ShouldTell(
            "pay.band",
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $$"""{"pay":{{pay}},"min":{{min}},"mid":{{mid}},"max":{{max}} }"""),
            problem
        );
}
