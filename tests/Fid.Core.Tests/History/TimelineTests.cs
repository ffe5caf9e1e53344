using CsCheck;
using Fid.Core.History;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.History;

public class TimelineTests
{
    private static readonly LocalDate Zero = new(2027, 1, 1);

    [Fact]
    public void A_change_ends_the_value_before_it_and_stops_at_the_one_planned_after()
    {
        var edit = Timeline.Change([S("a", 0, 99), S("b", 100, null)], Day(40), "new");
        edit.Retired.ShouldBe([S("a", 0, 99)]);
        edit.Added.ShouldBe([S("a", 0, 39), S("new", 40, 99)]);
    }

    [Fact]
    public void A_fix_takes_the_place_of_the_mistake_for_the_same_time() =>
        Timeline.Fix([S("a", 0, 99), S("b", 100, null)], Day(150), "right", Day(0)).Added.ShouldBe([S("right", 100, null)]);

    [Fact]
    public void A_fix_where_nothing_holds_fills_the_gap() =>
        Timeline.Fix([S("a", 0, 9), S("b", 100, null)], Day(50), "new", Day(0)).Added.ShouldBe([S("new", 10, 99)]);

    [Fact]
    public void Emptying_what_is_empty_and_moving_to_where_it_is_do_nothing()
    {
        Timeline.Fix([S("a", 0, 9)], Day(50), null, Day(0)).Added.ShouldBeEmpty();
        var edit = Timeline.MoveFirst([S("a", 10, null)], Day(10), Day(10));
        (edit.Retired.Count, edit.Added.Count).ShouldBe((0, 0));
    }

    [Fact]
    public void Moving_the_first_day_moves_the_values_that_began_on_it()
    {
        Timeline.MoveFirst([S("a", 10, 19), S("b", 20, null)], Day(10), Day(15)).Added.ShouldBe([S("a", 15, 19)]);
        Timeline.MoveFirst([S("a", 10, 19)], Day(10), Day(30)).Added.ShouldBeEmpty(); // it would end before it begins
        Timeline.MoveFirst([S("a", 12, null)], Day(10), Day(15)).Added.ShouldBeEmpty();
        Timeline.MoveFirst([S("a", 10, 19)], Day(10), Day(19)).Added.ShouldBe([S("a", 19, 19)]); // a day of it is left
        Timeline.MoveFirst([S("a", 10, 19)], Day(10), Day(20)).Added.ShouldBeEmpty();
        // Back to the day after the one before ends, and no further.
        Timeline.MoveFirst([S("z", 0, 4), S("a", 10, null)], Day(10), Day(5)).Added.ShouldBe([S("a", 5, null)]);
        Timeline.MoveFirst([S("z", 0, 5), S("a", 10, null)], Day(10), Day(5)).Added.ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_is_saved_one_value_holds_on_each_day_and_the_last_one_entered_where_it_was() =>
        Gen.Select(Gen.Int[0, 60], Gen.Bool, Gen.Bool)
            .Array[1, 12]
            .Sample(saves =>
            {
                var believed = new List<DatedValue<string>>();
                for (var i = 0; i < saves.Length; i++)
                {
                    var (day, fix, empty) = saves[i];
                    var value = empty && i > 0 ? null : $"v{i}";
                    var edit = fix ? Timeline.Fix(believed, Day(day), value, Day(0)) : Timeline.Change(believed, Day(day), value);
                    edit.Retired.ShouldAllBe(r => believed.Contains(r));
                    believed.RemoveAll(edit.Retired.Contains);
                    believed.AddRange(edit.Added);
                    believed.ShouldAllBe(s => s.To == null || s.To >= s.From);
                    for (var d = 0; d < 70; d++)
                        believed.Count(s => s.Holds(Day(d))).ShouldBeLessThanOrEqualTo(1);
                    (believed.SingleOrDefault(s => s.Holds(Day(day)))?.Value).ShouldBe(value);
                }
            });

    private static DatedValue<string> S(string value, int from, int? to) => new(value, Day(from), to is { } t ? Day(t) : null);

    private static LocalDate Day(int day) => Zero.PlusDays(day);
}
