using CsCheck;
using Fid.Core.Planning;
using NodaTime;
using Shouldly;
using Xunit;
using static Fid.Core.Tests.Planning.Plans;

namespace Fid.Core.Tests.Planning;

/// <summary>What becomes of stages by themselves, and what a person's word does to their gates.</summary>
public class StageStepsTests
{
    private static readonly PlanStage[] Stages = [Stage("prepare"), Stage("arrive", FromStart(0), "prepare"), Stage("settle", null, "arrive")];

    private static readonly PlanTask[] Tasks =
    [
        Task("kit", done: "02-24"),
        Task("badge", done: "02-26"),
        Task("mug", required: false),
        Task("tour", "arrive", due: FromStart(0)),
        Task("talk", "settle"),
    ];

    [Fact]
    public void A_gate_passes_on_the_day_its_last_required_task_was_done_and_opens_what_has_waited_once_its_day_has_come()
    {
        Steps(Question(Tasks, Stages, today: "03-01"))
            .ShouldBe([new("prepare", StageStepKind.Opened, Day("03-01")), new("prepare", StageStepKind.Passed, Day("02-26"))]);
        // The day before the first one it is closed still; on it, open.
        Steps(Question(Tasks, Stages, today: "03-21"), Known("prepare 02-20 02-26")).ShouldBeEmpty();
        Steps(Question(Tasks, Stages, today: "03-22"), Known("prepare 02-20 02-26")).ShouldBe([new("arrive", StageStepKind.Opened, Day("03-22"))]);
    }

    [Theory]
    [InlineData("kit", "03-01", "03-01", "What was done today passes today")]
    [InlineData("kit", "03-09", "03-01", "What is said to be done on a day to come, today")]
    public void No_gate_passes_on_a_day_that_has_not_come(string task, string done, string passed, string why) =>
        Steps(Question([Task(task, done: done)], [Stage("prepare")])).ShouldContain(new StageStep("prepare", StageStepKind.Passed, Day(passed)), why);

    [Fact]
    public void A_stage_whose_day_is_a_working_day_opens_when_the_calendar_of_one_of_its_tasks_says_so()
    {
        // The start is a Saturday: the dock works, the office not before Monday.
        var stages = new[] { Stage("arrive", FromStart(0)) };
        Opens("dock", "03-20").ShouldBeTrue();
        Opens("office", "03-20").ShouldBeFalse();
        Opens("office", "03-21").ShouldBeFalse();
        Opens("office", "03-22").ShouldBeTrue();

        bool Opens(string calendar, string today) => Plan(Question([Task("tour", "arrive", calendar)], stages, today, start: "03-20")).Stages[0].Opened;
    }

    [Fact]
    public void A_stage_without_a_task_is_passed_as_soon_as_anybody_looks_and_holds_up_none()
    {
        var question = Question([Task("tour", "settle")], Stages, today: "03-22");
        Steps(question)
            .Select(s => (s.Stage, s.Kind))
            .ShouldBe([
                ("prepare", StageStepKind.Opened),
                ("prepare", StageStepKind.Passed),
                ("arrive", StageStepKind.Opened),
                ("arrive", StageStepKind.Passed),
                ("settle", StageStepKind.Opened),
            ]);
    }

    [Fact]
    public void A_task_that_is_open_again_opens_its_stage_again_and_closes_what_waits_for_it()
    {
        PlanTask[] undone = [Task("kit"), .. Tasks[1..]];
        Steps(Question(undone, Stages, today: "03-22"), Known("prepare 02-20 02-26; arrive 03-22"))
            .ShouldBe([new("prepare", StageStepKind.Reopened, Day("03-22")), new("arrive", StageStepKind.Closed, Day("03-22"))]);
    }

    [Fact]
    public void A_clock_that_is_set_back_closes_nothing() =>
        Steps(Question(Tasks, Stages, today: "03-19"), Known("prepare 02-20 02-26; arrive 03-22")).ShouldBeEmpty();

    [Fact]
    public void Who_has_every_gate_behind_them_has_settled_and_nobody_has_before_the_first_day()
    {
        PlanTask[] all = [.. Tasks.Select(t => t.Required ? t with { Done = Day("03-01") } : t)];
        Settled(all, "03-21").ShouldBeFalse();
        Settled(all, "03-22").ShouldBeTrue("What is not required may stay undone");
        Settled([.. all[..4], Task("talk", "settle")], "03-22").ShouldBeFalse();

        bool Settled(PlanTask[] tasks, string today)
        {
            var question = Question(tasks, Stages, today);
            return StageSteps.HasSettled(question, Plan(question));
        }
    }

    [Fact]
    public void A_gate_that_a_person_let_pass_keeps_nobody_waiting_and_gives_its_tasks_the_time_they_need()
    {
        PlanTask[] tasks = [Task("kit", work: 30), Task("tour", "arrive", "dock", due: FromStart(0))];
        var waits = Plan(Question(tasks, Stages[..2], today: "03-22"));
        (waits.Tasks[0].State, waits.Tasks[1].CanStart, waits.Stages[1].State).ShouldBe((TaskState.AtRisk, false, StageState.Closed));

        PlanStage[] passed = [Stages[0] with { Passed = Day("03-19") }, Stages[1]];
        var question = Question(tasks, passed, today: "03-22");
        var goesOn = Plan(question);
        (goesOn.Tasks[0].State, goesOn.Tasks[0].LatestStart, goesOn.Tasks[0].Unfinished).ShouldBe((TaskState.Ready, null, true));
        (goesOn.Tasks[1].CanStart, goesOn.Tasks[1].EarliestStart).ShouldBe((true, Day("03-22")));
        goesOn.Stages.Select(s => s.State).ShouldBe([StageState.Passed, StageState.Open]);
        Steps(question).ShouldContain(new StageStep("prepare", StageStepKind.Passed, Day("03-19")));
        Rope.Of(question, goesOn, Day("02-15")).Knots[0].ShouldBe(new Knot("prepare", Day("03-19"), true));
        PlanChain.Of(question, goesOn, "kit").ShouldBeEmpty();
    }

    [Fact]
    public void What_waits_for_a_gate_that_a_person_let_pass_later_than_its_day_begins_on_the_day_they_did()
    {
        PlanStage[] passed = [Stages[0] with { Passed = Day("04-01") }, Stages[1]];
        Plan(Question([Task("kit"), Task("tour", "arrive", "dock")], passed, today: "03-22")).Tasks[1].EarliestStart.ShouldBe(Day("04-01"));
    }

    [Fact]
    public void A_gate_that_a_person_keeps_lets_nothing_through_though_all_is_done()
    {
        PlanStage[] held = [Stages[0] with { Held = true }, Stages[1]];
        var question = Question([Task("kit", done: "02-24"), Task("tour", "arrive", "dock")], held, today: "03-22");
        var plan = Plan(question);
        plan.Stages.Select(s => (s.State, s.Opened)).ShouldBe([(StageState.Open, true), (StageState.Closed, false)]);
        (plan.Tasks[1].CanStart, plan.Tasks[1].State, plan.Tasks[1].EarliestStart).ShouldBe((false, TaskState.Waiting, Day("03-22")));
        Steps(question, Known("prepare 02-20 02-24")).ShouldBe([new("prepare", StageStepKind.Reopened, Day("03-22"))]);
        StageSteps.HasSettled(question, plan).ShouldBeFalse();
    }

    [Fact]
    public void Whatever_became_of_a_checklist_looked_at_twice_nothing_new_has() =>
        Gen.Select(Gen.Int[0, 40], Gen.Bool.Array[5], Gen.Int[0, 2], Gen.Int[0, 2])
            .Sample(
                (day, done, handled, before) =>
                {
                    PlanTask[] tasks = [.. Tasks.Select((t, i) => t with { Done = done[i] ? Day("02-24").PlusDays(i * 7) : null })];
                    PlanStage[] stages =
                    [
                        .. Stages.Select(
                            (s, i) =>
                                i != handled ? s
                                : done[i] ? s with { Passed = Day("03-02") }
                                : s with { Held = true }
                        ),
                    ];
                    var question = Question(tasks, stages) with { Today = Day("03-01").PlusDays(day) };
                    var known = Stages.Take(before).ToDictionary(s => s.Id, _ => new StageStanding(Day("02-20"), Day("02-21")));
                    foreach (var step in Steps(question, known))
                        known[step.Stage] = After(known.GetValueOrDefault(step.Stage), step);
                    Steps(question, known).ShouldBeEmpty();
                    var plan = Plan(question);
                    foreach (var (stage, i) in plan.Stages.Select((s, i) => (s, i)))
                        known
                            .GetValueOrDefault(stage.Id)
                            .ShouldSatisfyAllConditions(
                                s => (s.Opened is not null).ShouldBe(stage.Opened),
                                s => (s.Passed is not null).ShouldBe(stage.State == StageState.Passed)
                            );
                }
            );

    private static StageStanding After(StageStanding standing, StageStep step) =>
        step.Kind switch
        {
            StageStepKind.Opened => standing with { Opened = step.Day },
            StageStepKind.Closed => standing with { Opened = null },
            StageStepKind.Passed => standing with { Passed = step.Day },
            _ => standing with { Passed = null },
        };

    private static IReadOnlyList<StageStep> Steps(PlanQuestion question, Dictionary<string, StageStanding>? known = null) =>
        StageSteps.Of(question, Plan(question), known ?? []);

    // "prepare 02-20 02-26; arrive 03-22": the stage, since when it is open, when its gate passed.
    private static Dictionary<string, StageStanding> Known(string standings) =>
        standings
            .Split(';')
            .Select(s => s.Trim().Split(' '))
            .ToDictionary(s => s[0], s => new StageStanding(Day(s[1]), s.Length > 2 ? Day(s[2]) : (LocalDate?)null));
}
