using CsCheck;
using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class StatedRateTests
{
    [Theory]
    [InlineData(17.4, PayPeriod.Hour)]
    [InlineData(104.4, PayPeriod.Day)]
    [InlineData(522, PayPeriod.Week)]
    [InlineData(2262, PayPeriod.Month)]
    [InlineData(27144, PayPeriod.Year)]
    public void Typed_for_one_time_it_is_known_for_the_others(double amount, PayPeriod per) =>
        StatedRate.Of((decimal)amount, per, 30, 5).Answer.ShouldBe(new StatedRate(17.4m, 104.4m, 522, 2262, 27144));

    [Fact]
    public void What_is_typed_is_never_changed_by_rounding()
    {
        // A month's pay whose hourly rate has no end.
        var stated = StatedRate.Of(1000, PayPeriod.Month, 37.5m, 5).Answer!;
        (stated.Month, stated.Year, stated.Hour).ShouldBe((1000, 12_000, 6.1538m));
        StatedRate.Of(6.15385m, PayPeriod.Hour, 37.5m, 5).Answer!.Hour.ShouldBe(6.1539m);
    }

    [Theory]
    [InlineData(-1, 30, 5, "/amount")]
    [InlineData(1, 0, 5, "/weeklyHours")]
    [InlineData(1, 169, 5, "/weeklyHours")]
    [InlineData(1, 30, 8, "/daysPerWeek")]
    public void Refuses_what_cannot_be(double amount, double hours, double days, string path) =>
        StatedRate.Of((decimal)amount, PayPeriod.Week, (decimal)hours, (decimal)days).Problems[0].Path.ShouldBe(path);

    [Fact]
    public void A_year_is_fifty_two_weeks_and_twelve_months_to_the_cent() =>
        Gen.Select(Gen.Int[0, 10_000_000], Gen.OneOf(PayPeriod.Hour, PayPeriod.Day, PayPeriod.Week, PayPeriod.Month, PayPeriod.Year), Gen.Int[1, 168])
            .Sample(
                (cents, per, hours) =>
                {
                    var stated = StatedRate.Of(cents / 100m, per, hours, 5).Answer!;
                    Math.Abs(stated.Week * 52 - stated.Year).ShouldBeLessThanOrEqualTo(0.27m);
                    Math.Abs(stated.Month * 12 - stated.Year).ShouldBeLessThanOrEqualTo(0.07m);
                    Math.Abs(stated.Day * 5 - stated.Week).ShouldBeLessThanOrEqualTo(0.03m);
                }
            );
}
