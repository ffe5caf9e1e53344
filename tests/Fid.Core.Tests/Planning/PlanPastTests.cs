using Fid.Core.Planning;
using Shouldly;
using Xunit;
using static Fid.Core.Tests.Planning.Plans;

namespace Fid.Core.Tests.Planning;

/// <summary>Since when tasks could be worked on, and which of them held up their hire.</summary>
public class PlanPastTests
{
    private static readonly PlanTask[] Radio =
    [
        Task("contract", work: 2, dayOne: true, done: "02-26"),
        Task("order", work: 8, dayOne: true, after: "contract", done: "03-12"),
        Task("program", work: 3, dayOne: true, after: "order", done: "03-19", due: FromStart(-2, OffsetUnit.Working)),
        Task("tour", "arrive", "dock", done: "03-24", due: FromStart(0)),
        Task("talk", "arrive", after: "tour"),
    ];

    [Fact]
    public void A_task_could_be_worked_on_once_all_it_waits_for_was_there()
    {
        Past(Radio)
            .Select(t => t.Possible)
            // The gate passed with the programming on the 19th, and the stage opens on the 22nd.
            .ShouldBe([Day("02-15"), Day("02-26"), Day("03-12"), Day("03-22"), Day("03-24")]);
    }

    [Fact]
    public void What_waits_for_something_that_is_not_done_could_not_be_worked_on_yet()
    {
        PlanTask[] open = [Radio[0], Radio[1] with { Done = null }, Radio[2] with { Done = null }, Radio[3] with { Done = null }];
        Past(open).Select(t => t.Possible).ShouldBe([Day("02-15"), Day("02-26"), null, null]);
        Past([open[0], open[1] with { Skipped = true }, open[2]])
            .Select(t => t.Possible)
            .ShouldBe([Day("02-15"), null, Day("02-15")], "What does not apply keeps nobody");
    }

    [Theory]
    [InlineData("03-12", false, "on the last day that left the programming its three")]
    [InlineData("03-13", true, "a day later, though a Saturday")]
    public void What_was_finished_after_the_last_day_that_leaves_all_else_its_time_held_it_up(string done, bool heldUp, string why) =>
        Past([Radio[0], Radio[1] with { Done = Day(done) }, Radio[2]])[1].HeldUp.ShouldBe(heldUp, why);

    [Fact]
    public void What_had_to_be_finished_before_anybody_knew_of_the_hire_held_up_nobody() =>
        Past(Radio, known: "03-20").Where(t => t.HeldUp).Select(t => t.Id).ShouldBe(["tour"]);

    [Fact]
    public void What_could_not_have_been_finished_in_time_was_held_up_itself_and_what_kept_it_is_to_blame()
    {
        PlanTask[] late = [Radio[0], Radio[1] with { Done = Day("03-18") }, Radio[2] with { Done = Day("03-23") }, Radio[3]];
        Past(late).Where(t => t.HeldUp).Select(t => t.Id).ShouldBe(["order"]);
        // Had it come in time, the programming would be to blame.
        late[1] = Radio[1];
        Past(late).Where(t => t.HeldUp).Select(t => t.Id).ShouldBe(["program"]);
    }

    [Fact]
    public void Lags_and_a_gate_that_a_person_let_pass_count_as_they_came()
    {
        PlanTask[] tasks = [Task("kit"), Task("paint", calendar: "dock", done: "03-05"), Task("sand", after: "paint", lag: 1), Task("tour", "arrive", "dock")];
        var passed = Question(tasks, [Stage("prepare") with { Passed = Day("03-23") }, Stage("arrive", FromStart(0), "prepare")]);
        var past = PlanPast.Of(passed, Day("02-15")).Answer!;
        // Done on a Friday, a lag of one lets go on Monday.
        past.Select(t => t.Possible).ShouldBe([Day("02-15"), Day("02-15"), Day("03-08"), Day("03-23")]);
        PlanPast.Of(passed with { Tasks = [Task("loop", after: "loop")] }, Day("02-15")).Problems.ShouldNotBeEmpty();
    }

    private static IReadOnlyList<PastTask> Past(PlanTask[] tasks, string known = "02-15") => PlanPast.Of(Question(tasks, today: "04-01"), Day(known)).Answer!;
}
