using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class SplitPayTests
{
    private static readonly LocalDate From = new(2027, 3, 1),
        To = new(2027, 3, 31);
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);

    [Fact]
    public void Hours_changed_in_the_middle_of_a_period_share_out_its_days()
    {
        // Of 23 working days, 10 lie before the 15th.
        SplitPay
            .Of(From, To, [new(new(2026, 1, 1), 2300), new(new(2027, 3, 15), 1150)], Weekdays)
            .ShouldBe([new PartPay(From, new(2027, 3, 14), 10, 23, 1000), new PartPay(new(2027, 3, 15), To, 13, 23, 650)]);
        SplitPay
            .Of(From, To, [new(new(2027, 3, 16), 3100), new(new(2027, 3, 26), 0), new(new(2027, 4, 1), 5)], null)
            .ShouldBe([new PartPay(new(2027, 3, 16), new(2027, 3, 25), 10, 31, 1000), new PartPay(new(2027, 3, 26), To, 6, 31, 0)]);
    }

    [Fact]
    public void The_last_day_belongs_to_the_part_and_a_period_without_days_pays_nothing()
    {
        SplitPay.Of(From, To, [new(To, 3100)], null).ShouldBe([new PartPay(To, To, 1, 31, 100)]);
        SplitPay.Of(From, To, [new(To.PlusDays(1), 3100)], null).ShouldBeEmpty();
        SplitPay.Of(new(2027, 3, 6), new(2027, 3, 7), [new(From, 3100)], Weekdays).ShouldHaveSingleItem().Amount.ShouldBe(0);
    }

    [Fact]
    public void The_parts_of_a_split_period_add_up_to_the_whole_to_the_cent() =>
        Gen.Select(Gen.Int[0, 1_000_000], Gen.Int[0, 30].Array[1, 6], Gen.Bool)
            .Sample(
                (cents, days, working) =>
                {
                    var amount = cents / 100m;
                    AmountFrom[] same = [new(From, amount), .. days.Distinct().Order().Where(d => d > 0).Select(d => new AmountFrom(From.PlusDays(d), amount))];
                    var parts = SplitPay.Of(From, To, same, working ? Weekdays : null);
                    parts.Sum(p => p.Amount).ShouldBe(amount);
                    parts.Sum(p => p.Part).ShouldBe(parts[0].Whole);
                    parts.ShouldAllBe(p => p.Amount == Math.Round(p.Amount, 2) && p.Amount >= 0);
                    // Each day belongs to one part.
                    parts.Skip(1).Select((p, i) => (p.From, parts[i].To.PlusDays(1))).ShouldAllBe(p => p.From == p.Item2);
                }
            );
}
