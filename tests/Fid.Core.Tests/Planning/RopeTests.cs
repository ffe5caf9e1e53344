using Fid.Core.Planning;
using NodaTime;
using Shouldly;
using Xunit;
using static Fid.Core.Tests.Planning.Plans;

namespace Fid.Core.Tests.Planning;

public class RopeTests
{
    [Fact]
    public void A_knot_lies_on_the_working_day_after_the_latest_finish()
    {
        // Due on Friday the 19th, the 22nd is the next working day; every day is one on the dock.
        Of(Task("a", due: FromStart(-3))).Knots[0].Day.ShouldBe(Day("03-22"));
        Of(Task("a", calendar: "dock", due: FromStart(-3))).Knots[0].Day.ShouldBe(Day("03-20"));
        // The day after Tuesday the 16th is the holiday.
        Of(Task("a", due: FromStart(-6))).Knots[0].Day.ShouldBe(Day("03-18"));
    }

    [Theory]
    [InlineData("03-01", 1, "03-02")] // the latest finish is today still
    [InlineData("03-01", 2, "03-02")] // and counts, though the work takes until tomorrow
    [InlineData("02-26", 1, "03-02")] // it is gone: what is possible at the earliest counts
    [InlineData("02-26", 2, "03-03")]
    public void Where_the_latest_finish_is_gone_the_earliest_counts(string due, int work, string knot) =>
        Of(Task("a", work: work, due: FromStart(Period.DaysBetween(Day("03-22"), Day(due))))).Knots[0].Day.ShouldBe(Day(knot));

    [Fact]
    public void The_last_of_the_required_tasks_ties_the_knot_and_what_does_not_count_ties_none()
    {
        Of(Task("a", done: "02-20"), Task("b", done: "02-24"), Task("c", done: "02-22")).Knots[0].ShouldBe(new Knot("prepare", Day("02-24"), true));
        Of(Task("a", done: "02-20"), Task("b", required: false, due: FromStart(-3)), Task("c", skipped: true))
            .Knots[0]
            .ShouldBe(new Knot("prepare", Day("02-20"), true));
        // A stage without tasks has its knot where the one before it has.
        Of(Task("a", done: "02-20")).Knots[1].ShouldBe(new Knot("arrive", Day("02-20"), true));
    }

    [Fact]
    public void It_is_spliced_as_far_as_the_required_tasks_of_the_stage_under_way_are_done()
    {
        // From the 15th of February to the 20th of March, of which two of four are done; the optional one does not count.
        var rope = Of(
            Task("a", calendar: "dock", done: "02-20"),
            Task("b", calendar: "dock", done: "02-20"),
            Task("c", calendar: "dock", due: FromStart(-3)),
            Task("d", calendar: "dock", due: FromStart(-5)),
            Task("e", calendar: "dock", required: false)
        );
        (rope.From, rope.To, rope.Knots[0].Day).ShouldBe((Day("02-15"), Day("02-15").PlusDays(33 * 2 / 4), Day("03-20")));
        // Nothing of a later stage is spliced before the knot ahead of it.
        Of(Task("a", due: FromStart(-3)), Task("b", "arrive", done: "02-20")).To.ShouldBe(Day("02-15"));
    }

    [Fact]
    public void It_begins_at_the_start_where_that_was_before_the_offer_was_accepted() =>
        Rope.Of(Question([Task("a")]), Plan(Question([Task("a")])), Day("04-01")).From.ShouldBe(Day("03-22"));

    [Theory]
    [InlineData("02-26", true, true)] // due before today
    [InlineData("03-01", true, false)] // due today
    [InlineData("02-26", false, false)] // nobody waits for it
    public void It_is_frayed_where_a_required_task_is_late(string due, bool required, bool frayed) =>
        Of(Task("a", required: required, due: FromStart(Period.DaysBetween(Day("03-22"), Day(due))))).Frayed.ShouldBe(frayed);

    private static Rope Of(params PlanTask[] tasks)
    {
        var question = Question(tasks);
        return Rope.Of(question, Plan(question), Day("02-15"));
    }
}
