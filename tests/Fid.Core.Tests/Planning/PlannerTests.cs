using Fid.Core.Planning;
using NodaTime;
using Shouldly;
using Xunit;
using static Fid.Core.Tests.Planning.Plans;

namespace Fid.Core.Tests.Planning;

public class PlannerTests
{
    [Theory]
    [InlineData("order-radio", "03-01", "03-10", "03-03", "03-12", 2, TaskState.Ready)]
    [InlineData("program-radio", "03-11", "03-15", "03-15", "03-18", 2, TaskState.Waiting)]
    [InlineData("locker", "03-01", "03-01", "03-19", "03-19", 18, TaskState.Ready)]
    [InlineData("badge", "03-02", "03-02", "03-21", "03-21", 19, TaskState.Waiting)]
    [InlineData("tour", "03-22", "03-22", "03-22", "03-22", 0, TaskState.Waiting)]
    [InlineData("review", "03-23", "03-23", "04-22", "04-22", 22, TaskState.Waiting)]
    public void Plans_the_worked_example(string id, string earliest, string finish, string latest, string lastFinish, int slack, TaskState state)
    {
        var task = Plan(Example).Tasks.Single(t => t.Id == id);
        (task.EarliestStart, task.EarliestFinish, task.LatestStart, task.LatestFinish).ShouldBe((Day(earliest), Day(finish), Day(latest), Day(lastFinish)));
        (task.Slack, task.State, task.Critical).ShouldBe((slack, state, slack <= 0));
    }

    [Fact]
    public void Sums_the_worked_example_up()
    {
        var plan = Plan(Example);
        plan.Tasks[0].ShouldBe(new PlannedTask("contract", null, TaskState.Done, null, null, null, null, null, false));
        plan.Stages.Select(s => s.State).ShouldBe([StageState.Open, StageState.Closed]);
        plan.Feasible.ShouldBeTrue();
        plan.SoonestStart.ShouldBe(Day("03-17"));
        (plan.Readiness.Done, plan.Readiness.Of, plan.Readiness.Percent).ShouldBe((1, 5, 20));
        plan.HoldUp.ShouldBe("order-radio");
    }

    [Fact]
    public void A_due_date_on_a_rest_day_moves_back_and_an_opening_moves_forward()
    {
        Only(Task("a", due: FromStart(-1))).Due.ShouldBe(Day("03-19")); // Sunday → Friday
        Only(Task("a", opens: FromStart(-1))).EarliestStart.ShouldBe(Day("03-22"));
        Only(Task("a", due: new PlanOffset("accepted", 1, OffsetUnit.Weeks))).Due.ShouldBe(Day("02-22"));
    }

    [Fact]
    public void Months_keep_to_the_end_of_the_month() =>
        Only(Task("a", calendar: "dock", due: FromStart(1, OffsetUnit.Months)), start: "01-31").Due.ShouldBe(Day("02-28"));

    [Theory]
    [InlineData(0, "03-02")] // the day after it is finished
    [InlineData(1, "03-03")]
    [InlineData(3, "03-05")]
    public void Waits_for_the_day_after_a_predecessor_and_then_the_lag(int lag, string earliest) =>
        Plan(Question([Task("a"), Task("b", after: "a", lag: lag)])).Tasks[1].EarliestStart.ShouldBe(Day(earliest));

    [Theory]
    [InlineData("03-04", 1, 1, "03-08")] // finished on a Thursday: Friday lies between
    [InlineData("03-05", 1, 1, "03-09")] // on a Friday: Monday does
    [InlineData("03-05", 0, 1, "03-08")] // a milestone on a Friday is free that day
    [InlineData("03-05", 1, -1, "03-05")]
    [InlineData("03-16", 1, 1, "03-19")] // the 17th is off
    public void The_days_of_a_lag_are_working_days_between_the_two(string opens, int work, int lag, string earliest)
    {
        var offset = NodaTime.Period.DaysBetween(Day("03-22"), Day(opens));
        Plan(Question([Task("a", work: work, opens: FromStart(offset, OffsetUnit.Days)), Task("b", after: "a", lag: lag)]))
            .Tasks[1]
            .EarliestStart.ShouldBe(Day(earliest));
    }

    [Theory]
    [InlineData("02-26", "03-01")] // done on a Friday: one working day later
    [InlineData("02-27", "03-02")] // on a Saturday: rolled to Monday first
    public void A_lag_after_what_was_done_counts_from_a_working_day(string done, string earliest) =>
        Plan(Question([Task("a", done: done), Task("b", after: "a", lag: 1)], today: "02-27")).Tasks[1].EarliestStart.ShouldBe(Day(earliest));

    [Fact]
    public void Milestones_need_no_day_of_their_own()
    {
        var plan = Plan(Question([Task("a", work: 0), Task("b", after: "a", due: FromStart(-3))]));
        (plan.Tasks[0].EarliestFinish, plan.Tasks[1].EarliestStart).ShouldBe((Day("03-01"), Day("03-01")));
        (plan.Tasks[0].LatestStart, plan.Tasks[1].LatestStart).ShouldBe((Day("03-19"), Day("03-19")));
    }

    [Fact]
    public void A_done_predecessor_frees_its_successor_on_the_day_and_a_skipped_one_does_not_hold_it()
    {
        Plan(Question([Task("a", done: "03-04"), Task("b", after: "a")], today: "03-01")).Tasks[1].EarliestStart.ShouldBe(Day("03-04"));
        var plan = Plan(Question([Task("a", work: 20, skipped: true), Task("b", after: "a", lag: 9)]));
        (plan.Tasks[0].State, plan.Tasks[1].EarliestStart, plan.Tasks[1].State).ShouldBe((TaskState.Skipped, Day("03-01"), TaskState.Ready));
    }

    [Theory]
    [InlineData("03-01", 0, null, true)] // done today: its successor can begin today
    [InlineData("03-02", 0, null, false)]
    [InlineData("02-26", 1, null, true)] // Friday and a day of waiting is today, Monday
    [InlineData("03-01", 1, null, false)]
    [InlineData("02-26", 0, 0, true)] // opens today
    [InlineData("02-26", 0, 1, false)]
    public void What_a_task_waits_for_is_over_on_the_day_itself(string done, int lag, int? opensIn, bool canStart)
    {
        var b = Task("b", after: "a", lag: lag, opens: opensIn is { } days ? FromStart(days) : null);
        Plan(Question([Task("a", done: done), b], today: "03-01", start: "03-01")).Tasks[1].CanStart.ShouldBe(canStart);
    }

    [Fact]
    public void The_lag_is_taken_off_again_going_back()
    {
        var plan = Plan(Question([Task("a"), Task("b", after: "a", lag: 2, due: FromStart(-3))]));
        plan.Tasks[0].LatestFinish.ShouldBe(Day("03-15")); // 19 less two working days is 16 (17 is off), the day before is 15
    }

    [Theory]
    [InlineData("03-02", null, TaskState.Late)] // late comes before anything the plan says
    [InlineData("03-03", null, TaskState.AtRisk)]
    [InlineData("03-05", null, TaskState.Ready)]
    [InlineData("03-05", "03-04", TaskState.Done)]
    public void The_first_state_that_fits_counts(string due, string? done, TaskState state)
    {
        var off = Period.DaysBetween(Day("03-22"), Day(due));
        Only(Task("a", work: 2, due: FromStart(off), done: done), today: "03-03").State.ShouldBe(state);
    }

    [Fact]
    public void A_task_that_can_be_worked_on_although_late_may_hold_things_up() =>
        Plan(Question([Task("a", due: FromStart(-21)), Task("b", due: FromStart(-3))], today: "03-03")).HoldUp.ShouldBe("a");

    [Fact]
    public void Ties_in_what_holds_up_go_by_due_date_and_then_id()
    {
        Plan(Question([Task("b", dayOne: true), Task("a", dayOne: true), Task("c", dayOne: true, due: FromStart(0))])).HoldUp.ShouldBe("c");
        Plan(Question([Task("b", dayOne: true), Task("a", dayOne: true)])).HoldUp.ShouldBe("a");
        Plan(Question([Task("a")])).HoldUp.ShouldBeNull();
    }

    [Fact]
    public void A_gate_passes_when_the_required_tasks_are_done_or_skipped_and_optional_ones_do_not_hold_it()
    {
        PlanTask[] tasks = [Task("a", done: "02-26"), Task("b", skipped: true), Task("c", work: 9, required: false), Task("d", "arrive", "dock")];
        var plan = Plan(Question(tasks, today: "03-22"));
        plan.Stages.Select(s => s.State).ShouldBe([StageState.Passed, StageState.Open]);
        plan.Tasks[3].State.ShouldBe(TaskState.Ready);
        plan.Tasks[2].LatestFinish.ShouldBeNull();
    }

    [Fact]
    public void A_stage_that_waits_starts_when_the_gate_passes_and_presses_back_through_it()
    {
        var plan = Plan(Question([Task("a", work: 3), Task("b", "arrive", due: FromStart(2))], [Stage("prepare"), Stage("arrive", null, "prepare")]));
        plan.Tasks[1].EarliestStart.ShouldBe(Day("03-04"));
        plan.Tasks[0].LatestFinish.ShouldBe(Day("03-23"));
    }

    [Fact]
    public void Readiness_rounds_down_and_is_whole_where_there_is_nothing_to_do()
    {
        Plan(Question([Task("a", dayOne: true, done: "02-26"), Task("b", dayOne: true), Task("c", dayOne: true), Task("d", dayOne: true, skipped: true)]))
            .Readiness.Percent.ShouldBe(33);
        Plan(Question([Task("a")])).Readiness.ShouldBe(new Readiness(0, 0));
        new Readiness(0, 0).Percent.ShouldBe(100);
    }

    [Fact]
    public void Only_required_day_one_tasks_decide_whether_a_start_is_feasible()
    {
        Plan(Question([Task("a", work: 30, dayOne: true)])).Feasible.ShouldBeFalse();
        Plan(Question([Task("a", work: 30, dayOne: true, required: false)])).Feasible.ShouldBeTrue();
        Plan(Question([Task("a", due: FromStart(-60))])).Feasible.ShouldBeTrue();
    }

    [Fact]
    public void No_start_is_soonest_where_a_due_date_does_not_move_with_it() =>
        Plan(Question([Task("a", work: 30, dayOne: true, due: new PlanOffset("accepted", 3, OffsetUnit.Days))])).SoonestStart.ShouldBeNull();

    [Theory]
    [InlineData("unknown-anchor", "/tasks/0/due")]
    [InlineData("unknown-calendar", "/tasks/1/calendar")]
    [InlineData("unknown-stage", "/tasks/2/stage")]
    [InlineData("unknown-task", "/tasks/3/after/0")]
    [InlineData("duplicate-id", "/tasks/4/id")]
    [InlineData("unknown-stage", "/stages/1/waitsFor/0")]
    [InlineData("unknown-anchor", "/stages/1/opens")]
    public void Names_that_name_nothing_are_problems_with_a_path(string code, string path)
    {
        var question = Question(
            [
                Task("a", due: new PlanOffset("finish", 0, OffsetUnit.Days)),
                Task("b", calendar: "moon"),
                Task("c", "limbo"),
                Task("d", after: "nobody"),
                Task("a"),
            ],
            [Stage("prepare"), Stage("arrive", new PlanOffset("finish", 0, OffsetUnit.Days), "limbo")]
        );
        Planner.Plan(question).Problems.ShouldContain(p => p.Code == code && p.Path == path);
    }

    [Fact]
    public void A_loop_of_tasks_is_named()
    {
        var problem = Planner
            .Plan(Question([Task("a", after: "c"), Task("b", after: "a"), Task("c", after: "b"), Task("d", after: "c")]))
            .Problems.ShouldHaveSingleItem();
        problem.Code.ShouldBe("dependency-loop");
        problem.Message.ShouldContain("a after c after b after a");
        problem.Message.ShouldNotContain("d");
    }

    [Fact]
    public void A_loop_through_a_gate_is_named()
    {
        var problem = Planner.Plan(Question([Task("early", after: "late"), Task("late", "arrive")])).Problems.ShouldHaveSingleItem();
        problem.Code.ShouldBe("dependency-loop");
        problem.Message.ShouldContain("early");
        problem.Message.ShouldContain("the gate of prepare");
    }

    [Fact]
    public void Stages_that_wait_for_each_other_are_a_loop_even_without_tasks() =>
        Planner.Plan(Question([], [Stage("one", null, "two"), Stage("two", null, "one")])).Problems.ShouldHaveSingleItem().Path.ShouldBe("/stages/0/waitsFor");

    [Fact]
    public void A_chain_of_ten_thousand_tasks_is_planned()
    {
        var tasks = Enumerable.Range(0, 10_000).Select(i => Task($"t{i}", after: i == 9_999 ? null : $"t{i + 1}")).ToArray();
        Plan(Question(tasks)).Tasks[9_999].EarliestStart.ShouldBe(Day("03-01"));
    }

    [Theory]
    [InlineData(SoonestSearch.Always, 1, true)]
    [InlineData(SoonestSearch.Always, 30, true)]
    [InlineData(SoonestSearch.WhenNotFeasible, 1, false)]
    [InlineData(SoonestSearch.WhenNotFeasible, 30, true)]
    [InlineData(SoonestSearch.Never, 1, false)]
    [InlineData(SoonestSearch.Never, 30, false)]
    public void The_soonest_start_is_looked_for_as_often_as_is_asked(SoonestSearch search, int work, bool isLookedFor)
    {
        var plan = Planner.Plan(Plans.Question([Plans.Task("kit", work: work, dayOne: true)]), search).Answer!;
        plan.Feasible.ShouldBe(work == 1);
        (plan.SoonestStart is not null).ShouldBe(isLookedFor);
    }
}
