using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Planning;
using Shouldly;
using Xunit;
using static Fid.Core.Tests.Planning.Plans;

namespace Fid.Core.Tests.Planning;

/// <summary>Why a task has to be finished when it has.</summary>
public class PlanChainTests
{
    [Fact]
    public void The_radio_of_the_worked_example_has_to_be_ordered_for_its_programming_which_has_a_due_date()
    {
        Chain(Example, "order-radio")
            .ShouldBe([
                new ChainLink("order-radio", Day("03-10"), Day("03-12"), ChainBound.Task, "program-radio", Day("03-14")),
                new ChainLink("program-radio", Day("03-15"), Day("03-18"), ChainBound.Due, null, Day("03-18")),
            ]);
        Chain(Example, "contract").ShouldBeEmpty();
    }

    [Fact]
    public void A_milestone_may_fall_on_the_day_that_needs_it_and_another_the_day_before()
    {
        PlanTask[] tasks =
        [
            Task("done", work: 0),
            Task("made"),
            Task("ride", after: "done", due: FromStart(0)),
            Task("drive", after: "made", due: FromStart(0)),
        ];
        var question = Question(tasks);
        Chain(question, "done")[0].Day.ShouldBe(Day("03-22"));
        Chain(question, "made")[0].Day.ShouldBe(Day("03-21"));
        Chain(question, "made")[0].LatestFinish.ShouldBe(Day("03-19"));
    }

    [Fact]
    public void Through_a_gate_goes_what_is_required_and_nothing_else()
    {
        PlanTask[] tasks = [Task("needed"), Task("nice", required: false), Task("tour", "arrive", due: FromStart(0))];
        var question = Question(tasks);
        Chain(question, "needed").Select(l => (l.Task, l.By, l.Next)).ShouldBe([("needed", ChainBound.Gate, "tour"), ("tour", ChainBound.Due, null)]);
        Chain(question, "nice").ShouldBeEmpty();
    }

    [Fact]
    public void A_lag_is_taken_off_in_the_days_of_the_one_that_waits()
    {
        PlanTask[] tasks = [Task("paint", calendar: "dock"), Task("sand", after: "paint", lag: 2, due: FromStart(0))];
        // Two working days of Monday the 22nd's office lie before it: the 19th and, the 17th being off, the 18th; the day before is free.
        Chain(Question(tasks), "paint")[0].Day.ShouldBe(Day("03-17"));
    }

    [Fact]
    public void Of_two_that_set_the_same_day_its_own_is_named()
    {
        PlanTask[] tasks = [Task("kit", dayOne: true, due: FromStart(-1), calendar: "dock"), Task("meet", after: "kit", due: FromStart(0), calendar: "dock")];
        Chain(Question(tasks), "kit").ShouldHaveSingleItem().By.ShouldBe(ChainBound.Due);
    }

    [Fact]
    public void Every_chain_proves_each_latest_finish_and_ends_at_a_day_that_is_given() =>
        PlanPropertyTests.Any.Sample(question =>
        {
            var plan = Planner.Plan(question).Answer!;
            foreach (var task in plan.Tasks)
            {
                var chain = PlanChain.Of(question, plan, task.Id);
                (chain.Count > 0).ShouldBe(task.LatestFinish is not null);
                if (chain.Count == 0)
                    continue;
                chain[0].Task.ShouldBe(task.Id);
                foreach (var (link, next) in chain.Zip(chain.Skip(1)))
                    link.Next.ShouldBe(next.Task);
                (chain[^1].By is ChainBound.Due or ChainBound.DayOne, chain[^1].Next).ShouldBe((true, null));
                foreach (var link in chain)
                {
                    var of = question.Tasks.Single(t => t.Id == link.Task);
                    question.Calendars[of.Calendar].Roll(link.Day, RollRule.Preceding).ShouldBe(link.LatestFinish);
                    plan.Tasks.Single(t => t.Id == link.Task).LatestFinish.ShouldBe(link.LatestFinish);
                }
            }
        });

    private static IReadOnlyList<ChainLink> Chain(PlanQuestion question, string task) => PlanChain.Of(question, Plan(question), task);
}
