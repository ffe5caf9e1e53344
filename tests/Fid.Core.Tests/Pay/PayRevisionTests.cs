using CsCheck;
using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>"Grade C2: + 2.5 %, at least 0.40 an hour, up to the band's maximum." The band ends at 42,000 for a full-time year of 37.5 hours.</summary>
public class PayRevisionTests
{
    private static readonly RevisionRule Rule = new(2.5m, 0.4m, UpToBand: true);

    [Theory]
    // 2.5 % of 17.40 is 0.435; of 15.00 only 0.375, so 0.40.
    [InlineData(17.4, PayPeriod.Hour, 30, 17.84, RevisionLimit.None)]
    [InlineData(16.0, PayPeriod.Hour, 30, 16.4, RevisionLimit.None)]
    [InlineData(15.0, PayPeriod.Hour, 30, 15.4, RevisionLimit.AtLeast)]
    // 42,000 ÷ 1950 hours is 21.538…: not a cent more.
    [InlineData(21.4, PayPeriod.Hour, 30, 21.53, RevisionLimit.BandMaximum)]
    [InlineData(21.53, PayPeriod.Hour, 30, 21.53, RevisionLimit.BandMaximum)]
    [InlineData(22.0, PayPeriod.Hour, 30, 22.0, RevisionLimit.BandMaximum)]
    // 0.40 an hour of 30 hours are 624 a year, 52 a month.
    [InlineData(24000, PayPeriod.Year, 30, 24624, RevisionLimit.AtLeast)]
    [InlineData(2000, PayPeriod.Month, 30, 2052, RevisionLimit.AtLeast)]
    [InlineData(30000, PayPeriod.Year, 30, 30750, RevisionLimit.None)]
    // The band is scaled to the hours: 42,000 × 30 ÷ 37.5.
    [InlineData(33500, PayPeriod.Year, 30, 33600, RevisionLimit.BandMaximum)]
    // Six hours a day, five days a week.
    [InlineData(96, PayPeriod.Day, 30, 98.4, RevisionLimit.None)]
    public void Raises_by_the_percentage_at_least_so_much_and_up_to_the_band(double before, PayPeriod per, double hours, double after, RevisionLimit limit)
    {
        var revised = Of(Rule, new PaidPerson("nils", (decimal)before, per, (decimal)hours, 37.5m, 5, 42_000)).People.Single();
        (revised.Id, revised.Before, revised.After, revised.Limit).ShouldBe(("nils", (decimal)before, (decimal)after, limit));
    }

    [Fact]
    public void Without_a_band_or_where_the_rule_does_not_keep_to_it_nothing_ends_a_raise()
    {
        var nils = new PaidPerson("nils", 30, PayPeriod.Hour, 30, 37.5m, 5, 42_000);
        Of(Rule, nils with { BandMaximum = null }).People.Single().After.ShouldBe(30.75m);
        Of(Rule with { UpToBand = false }, nils).People.Single().After.ShouldBe(30.75m);
    }

    [Fact]
    public void The_budget_is_what_all_of_them_cost_more_a_year()
    {
        var revision = Of(
            Rule,
            new PaidPerson("nils", 17.4m, PayPeriod.Hour, 30, 37.5m, 5, 42_000),
            new PaidPerson("orla", 24_000, PayPeriod.Year, 30, 37.5m, 5, 42_000),
            new PaidPerson("ruth", 50_000, PayPeriod.Year, 37.5m, 37.5m, 5, 42_000)
        );
        (revision.Raised, revision.AnnualBefore, revision.AnnualAfter, revision.Budget).ShouldBe((2, 101_144.00m, 102_454.40m, 1_310.40m));
        revision.People.Select(p => p.Id).ShouldBe(["nils", "orla", "ruth"]);
    }

    [Theory]
    [InlineData(-0.1, 0, "/percent")]
    [InlineData(100.1, 0, "/percent")]
    [InlineData(0, -0.1, "/atLeastHourly")]
    [InlineData(0, 1000.1, "/atLeastHourly")]
    public void A_rule_stays_within_its_limits(double percent, double least, string path) =>
        PayRevision.Of(new RevisionRule((decimal)percent, (decimal)least), []).Problems.ShouldHaveSingleItem().Path.ShouldBe(path);

    [Fact]
    public void At_its_limits_it_holds_and_a_person_is_named_by_place()
    {
        var nobody = Of(new RevisionRule(PayRevision.MostPercent, PayRevision.MostHourly));
        (nobody.People.Count, nobody.Raised, nobody.Budget).ShouldBe((0, 0, 0m));
        var nils = new PaidPerson("nils", 17.4m, PayPeriod.Hour, 30, 37.5m, 5);
        PayRevision.Of(Rule, [nils, nils with { WeeklyHours = 0 }]).Problems.ShouldHaveSingleItem().Path.ShouldBe("/people/1/weeklyHours");
    }

    [Fact]
    public void Nobody_is_paid_less_and_nobody_rises_above_the_band() =>
        Gen.Select(
                Gen.Int[0, 6_000_000],
                Gen.OneOf(PayPeriod.Hour, PayPeriod.Day, PayPeriod.Week, PayPeriod.Month, PayPeriod.Year),
                Gen.Int[1, 60],
                Gen.Int[0, 100],
                Gen.Int[0, 500]
            )
            .Sample(
                (cents, per, hours, percent, least) =>
                {
                    var person = new PaidPerson("p", cents / 100m, per, hours, 37.5m, 5, 42_000);
                    var revised = Of(new RevisionRule(percent / 10m, least / 100m, UpToBand: true), person).People.Single();
                    revised.After.ShouldBeGreaterThanOrEqualTo(revised.Before);
                    if (revised.After > revised.Before)
                        PayRate.Of(revised.After, per, hours, 37.5m, 5, PayPeriod.Year).Answer!.FullTimeAnnual.ShouldBeLessThanOrEqualTo(42_000);
                    // A raise half as large is never larger.
                    Of(new RevisionRule(percent / 20m, least / 200m, UpToBand: true), person).People.Single().After.ShouldBeLessThanOrEqualTo(revised.After);
                },
                iter: 3_000
            );

    private static PayRevision Of(RevisionRule rule, params PaidPerson[] people) => PayRevision.Of(rule, people).Answer!;
}
