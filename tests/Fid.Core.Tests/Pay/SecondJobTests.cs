using System.Globalization;
using CsCheck;
using Fid.Core.Pay;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class SecondJobTests
{
    private static readonly LocalDate First = new(2027, 3, 22),
        Last = new(2027, 9, 30);

    [Theory]
    [InlineData(SecondJobKind.Flat, 15.5, "15.5000")]
    [InlineData(SecondJobKind.PlusPercent, 5, "18.2700")]
    [InlineData(SecondJobKind.PlusPercent, -10, "15.6600")]
    [InlineData(SecondJobKind.PlusAmount, 1.4, "18.8000")]
    [InlineData(SecondJobKind.PlusAmount, -0.4, "17.0000")]
    // Nobody pays for working.
    [InlineData(SecondJobKind.PlusAmount, -20, "0.0000")]
    [InlineData(SecondJobKind.PlusPercent, -101, "0.0000")]
    // A third of a cent is rounded at the fourth decimal.
    [InlineData(SecondJobKind.PlusPercent, 0.333, "17.4579")]
    public void Has_its_own_rate(SecondJobKind kind, double value, string rate) =>
        new SecondJobRate(kind, (decimal)value, First).On(First, 17.4m)!.Value.ToString(CultureInfo.InvariantCulture).ShouldBe(rate);

    [Fact]
    public void Is_held_from_its_first_day_to_its_last_both_included()
    {
        var rate = new SecondJobRate(SecondJobKind.Flat, 15, First, Last);
        (rate.On(First.PlusDays(-1), 17), rate.On(First, 17), rate.On(Last, 17), rate.On(Last.PlusDays(1), 17)).ShouldBe((null, 15, 15, null));
        new SecondJobRate(SecondJobKind.Flat, 15, First).On(new LocalDate(9999, 12, 31), 17).ShouldBe(15);
    }

    [Fact]
    public void Overtime_on_mixed_rates_uses_the_weighted_average()
    {
        // 30 hours at 17.40 and 15 at 18.80 are 804.00 over 45 hours.
        RatedHours[] hours = [new(30, 17.4m), new(15, 18.8m)];
        MixedRates.Average(hours).ShouldBe(17.8667m);
        // Half as much again for five of them: 5 × 0.5 × 804 ÷ 45; with the rounded average it would be 44.67 too, but not for a hundred thousand.
        MixedRates.Overtime(hours, 5, 1.5m).ShouldBe(44.67m);
        MixedRates.Overtime(hours, 100_000, 2).ShouldBe(1_786_666.67m);
        (MixedRates.Average([]), MixedRates.Average([new(0, 17)]), MixedRates.Overtime([], 5, 1.5m)).ShouldBe((null, null, 0m));
    }

    [Fact]
    public void The_average_lies_between_the_rates() =>
        Gen.Select(Gen.Decimal[0.01m, 100], Gen.Decimal[0.01m, 100], Gen.Int[1, 100], Gen.Int[0, 100])
            .Sample(
                (one, other, hours, more) =>
                    MixedRates
                        .Average([new(hours, one), new(more, other)])!
                        .Value.ShouldBeInRange(Math.Min(one, other) - 0.0001m, Math.Max(one, other) + 0.0001m)
            );
}
