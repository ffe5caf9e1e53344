using CsCheck;
using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class LoadedCostTests
{
    [Fact]
    public void A_year_costs_what_is_paid_over_the_hours_that_are_worked() =>
        LoadedCost.Of([33800, 2028, 640], 37.5m, 7.5m, 25, 9, 30).Answer.ShouldBe(new LoadedCost(36468.00m, 1665.00m, 21.90m));

    [Theory]
    // 2080 hours less nothing, leave, holidays, training, each by itself.
    [InlineData(0, 0, 0, 2080, "10.00")]
    [InlineData(10, 0, 0, 2000, "10.40")]
    [InlineData(0, 10, 0, 2000, "10.40")]
    [InlineData(0, 0, 80, 2000, "10.40")]
    [InlineData(260, 0, 0, 0, null)]
    [InlineData(259, 0, 7, 1, "20800.00")]
    public void What_is_not_worked_makes_the_rest_dearer(int leave, int holidays, int training, int hours, string? hourly)
    {
        var cost = LoadedCost.Of([20_800], 40, 8, leave, holidays, training);
        if (hourly is null)
            cost.Problems.ShouldHaveSingleItem().Code.ShouldBe("nothing-left");
        else
            cost.Answer.ShouldBe(new LoadedCost(20_800, hours, decimal.Parse(hourly, System.Globalization.CultureInfo.InvariantCulture)));
    }

    [Theory]
    [InlineData(-0.01, 40, 8, 0, 0, 0, "/annualCosts/1")]
    [InlineData(1e12 + 1, 40, 8, 0, 0, 0, "/annualCosts/1")]
    [InlineData(1, 0, 8, 0, 0, 0, "/weeklyHours")]
    [InlineData(1, 168.5, 8, 0, 0, 0, "/weeklyHours")]
    [InlineData(1, 40, 0, 0, 0, 0, "/hoursPerDay")]
    [InlineData(1, 40, 24.5, 0, 0, 0, "/hoursPerDay")]
    [InlineData(1, 40, 8, -1, 0, 0, "/leaveDays")]
    [InlineData(1, 40, 8, 367, 0, 0, "/leaveDays")]
    [InlineData(1, 40, 8, 0, -1, 0, "/holidays")]
    [InlineData(1, 40, 8, 0, 367, 0, "/holidays")]
    [InlineData(1, 40, 8, 0, 0, -1, "/trainingHours")]
    [InlineData(1, 40, 8, 0, 0, 8785, "/trainingHours")]
    public void Refuses_what_cannot_be(double cost, double hours, double day, double leave, double holidays, double training, string path) =>
        LoadedCost
            .Of([1, (decimal)cost], (decimal)hours, (decimal)day, (decimal)leave, (decimal)holidays, (decimal)training)
            .Problems.ShouldHaveSingleItem()
            .Path.ShouldBe(path);

    [Fact]
    public void At_the_limits_it_can_be()
    {
        LoadedCost.Of([0, Money.Most], 168, 24, 0, 0, 0).Answer!.AnnualCost.ShouldBe(Money.Most);
        LoadedCost.Of([.. Enumerable.Repeat(1m, LoadedCost.Most)], 40, 8, 0, 0, 0).Succeeded.ShouldBeTrue();
        LoadedCost.Of([.. Enumerable.Repeat(1m, LoadedCost.Most + 1)], 40, 8, 0, 0, 0).Problems.ShouldHaveSingleItem().Path.ShouldBe("/annualCosts");
    }

    [Fact]
    public void In_whatever_order_the_costs_come_they_cost_the_same() =>
        Gen.Decimal[0, 100_000]
            .Array[1, 10]
            .Sample(costs => LoadedCost.Of(costs, 37.5m, 7.5m, 25, 9, 30).Answer.ShouldBe(LoadedCost.Of([.. costs.Reverse()], 37.5m, 7.5m, 25, 9, 30).Answer));
}
