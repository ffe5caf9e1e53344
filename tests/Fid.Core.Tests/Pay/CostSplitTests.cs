using CsCheck;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>Cost that several cost centres bear.</summary>
public class CostSplitTests
{
    [Theory]
    [InlineData("", "")]
    [InlineData("cost_centre=C400 percent=100", "")]
    [InlineData("cost_centre=C400 percent=60; cost_centre=C510 percent=40", "")]
    [InlineData("cost_centre=C400 percent=60; cost_centre=C510 percent=30", "percent:not-hundred")]
    [InlineData("cost_centre=C400 percent=60; cost_centre=C510 percent=40.01", "percent:not-hundred")]
    [InlineData("cost_centre=C400 percent=60; cost_centre=C510", "percent:missing")]
    [InlineData("cost_centre=C400 percent=60; cost_centre=C400 percent=40", "cost_centre:stands-twice")]
    public void Shares_add_up_to_a_hundred(string rows, string problems)
    {
        var values = PayElementTests.Values("cost_split", rows);
        var found = CostSplitRows.Problems(values, values.Keys).ToList();
        string.Join(' ', found.Select(p => $"{p.Path.Split('.', '@')[1]}:{p.Code}")).ShouldBe(problems);
        // Also for whoever takes one of them away, and for nobody who touches none.
        CostSplitRows.Problems(values, [$"cost_split.percent@{Guid.NewGuid()}"]).Select(p => p.Code).ShouldBe(found.Select(p => p.Code));
        CostSplitRows.Problems(values, ["cost_centre", "items.item@x"]).ShouldBeEmpty();
    }

    [Fact]
    public void They_are_read_in_the_order_of_cost_centres_without_those_that_say_nothing() =>
        CostSplitRows
            .Of(PayElementTests.Values("cost_split", "cost_centre=C510 percent=40; cost_centre=C900; percent=5; cost_centre=C400 percent=60"))
            .ShouldBe([new("C400", 60), new("C510", 40)]);

    [Fact]
    public void A_hundred_in_thirds_is_a_hundred_again() =>
        CostShare.Of(100, [new("a", 33.33m), new("b", 33.33m), new("c", 33.34m)]).ShouldBe([33.33m, 33.33m, 33.34m]);

    [Fact]
    public void The_parts_add_up_to_the_whole_and_each_is_within_a_cent_of_its_share() =>
        Gen.Select(Gen.Int[-10_000_000, 10_000_000], Gen.Int[1, 100].Array[1, 8])
            .Sample(
                (cents, weights) =>
                {
                    var (amount, all) = (cents / 100m, weights.Sum());
                    CostShare[] shares = [.. weights.Select((w, i) => new CostShare($"{i}", w * 100m / all))];
                    var parts = CostShare.Of(amount, shares);
                    parts.Sum().ShouldBe(amount);
                    parts.Zip(shares, (part, share) => Math.Abs(part - amount * share.Percent / 100)).Max().ShouldBeLessThanOrEqualTo(0.01m);
                }
            );
}
