using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class ColleaguePayTests
{
    [Theory]
    [InlineData(105, new[] { 90, 100, 110 }, 5.0)]
    [InlineData(95, new[] { 110, 90, 100 }, -5.0)]
    // Between the middle two.
    [InlineData(100, new[] { 90, 95, 105, 200 }, 0.0)]
    // One who earns a great deal moves nothing.
    [InlineData(100, new[] { 99, 100, 1_000_000 }, 0.0)]
    [InlineData(100.05, new[] { 100, 100, 100 }, 0.1)]
    public void Is_measured_from_their_middle(double pay, int[] colleagues, double percent) =>
        ColleaguePay.Distance((decimal)pay, [.. colleagues.Select(c => (decimal)c)]).ShouldBe((decimal)percent);

    [Fact]
    public void Two_are_too_few_to_say_and_nothing_has_no_percentage()
    {
        ColleaguePay.Distance(100, [90, 110]).ShouldBeNull();
        ColleaguePay.Distance(100, [0, 0, 0]).ShouldBeNull();
    }
}
