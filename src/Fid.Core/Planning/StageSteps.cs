using NodaTime;

namespace Fid.Core.Planning;

/// <summary>What became of the stages of a checklist since they were last looked at.</summary>
public static class StageSteps
{
    /// <summary>
    /// The steps that lead from what is known of the stages to how the plan finds them: each stage's gate before what it opens, in the order of
    /// the stages. Asked again with what these steps lead to, there are none.
    /// </summary>
    /// <param name="question">The question the plan answers.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="known">How each stage stood, by id; one that is left out had neither opened nor passed.</param>
    public static IReadOnlyList<StageStep> Of(PlanQuestion question, Plan plan, IReadOnlyDictionary<string, StageStanding> known)
    {
        var steps = new List<StageStep>();
        for (var i = 0; i < question.Stages.Count; i++)
        {
            var (stage, now) = (question.Stages[i], plan.Stages[i]);
            var (opened, passed) = known.GetValueOrDefault(stage.Id);
            if (now.Opened && opened is null)
                steps.Add(new StageStep(stage.Id, StageStepKind.Opened, question.Today));
            // One found open on a day that is yet to come stays so: the clock was set back.
            else if (!now.Opened && opened <= question.Today)
                steps.Add(new StageStep(stage.Id, StageStepKind.Closed, question.Today));
            if (now.State == StageState.Passed && passed is null)
                steps.Add(new StageStep(stage.Id, StageStepKind.Passed, PassedOn(question, stage)));
            else if (now.State != StageState.Passed && passed is not null)
                steps.Add(new StageStep(stage.Id, StageStepKind.Reopened, question.Today));
        }
        return steps;
    }

    /// <summary>Whether the newcomer has settled: the first day has come, and every gate is passed.</summary>
    public static bool HasSettled(PlanQuestion question, Plan plan) =>
        question.Anchors[PlanQuestion.Start] <= question.Today && plan.Stages.All(s => s.State == StageState.Passed);

    // On the day its last required task was done, though nobody looked then; never on a day that has not come.
    private static LocalDate PassedOn(PlanQuestion question, PlanStage stage)
    {
        if (stage.Passed is { } byHand)
            return byHand;
        LocalDate? last = null;
        foreach (var task in question.Tasks)
            if (task.Stage == stage.Id && task is { Required: true, Skipped: false, Done: { } done } && !(done <= last))
                last = done;
        return last is { } day ? LocalDate.Min(day, question.Today) : question.Today;
    }
}

/// <summary>How a stage stood when it was last looked at.</summary>
/// <param name="Opened">The day on which it was found open; null where it was not.</param>
/// <param name="Passed">The day its gate passed; null where it had not.</param>
public readonly record struct StageStanding(LocalDate? Opened, LocalDate? Passed);

/// <summary>Something that became of a stage.</summary>
/// <param name="Day">When: of a gate that passed by its tasks, the day the last of them was done.</param>
public readonly record struct StageStep(string Stage, StageStepKind Kind, LocalDate Day);

/// <summary>What became of a stage.</summary>
public enum StageStepKind
{
    /// <summary>Its day has come and the gates before it are passed: its tasks can be begun.</summary>
    Opened,

    /// <summary>It is open no more: a gate before it is not passed after all, or its day was moved.</summary>
    Closed,

    /// <summary>Its gate is passed.</summary>
    Passed,

    /// <summary>Its gate is not passed after all.</summary>
    Reopened,
}
