using NodaTime;

namespace Fid.Core.Planning;

/// <summary>The plan of a checklist: what each task's dates are, and what follows for the start.</summary>
/// <param name="Tasks">One for each task of the question, in its order.</param>
/// <param name="Stages">One for each stage of the question, in its order.</param>
/// <param name="Feasible">Whether no required day-one task has negative slack.</param>
/// <param name="SoonestStart">The first start from today on, at most <see cref="Planner.Horizon"/> days away, for which the plan
/// is feasible when only the anchor "start" moves; null when there is none.</param>
/// <param name="Readiness">How many of the required day-one tasks are done.</param>
/// <param name="HoldUp">The id of the task to chase: of those that can be worked on today and have a slack, the one with the
/// least; on a tie the one due first, then the first by id. Null when there is none.</param>
public sealed record Plan(
    IReadOnlyList<PlannedTask> Tasks,
    IReadOnlyList<PlannedStage> Stages,
    bool Feasible,
    LocalDate? SoonestStart,
    Readiness Readiness,
    string? HoldUp
);

/// <summary>A task's place in the plan. The dates and the slack are null for a task done or skipped.</summary>
/// <param name="Id">The task's id.</param>
/// <param name="Due">Its due date, moved off rest days; null where it has none.</param>
/// <param name="State">Its state today.</param>
/// <param name="EarliestStart">The first working day it can start.</param>
/// <param name="EarliestFinish">The last day of its work when it starts then (the same day for work of up to one day).</param>
/// <param name="LatestStart">The last working day it can start without making something late; null where nothing bounds it.</param>
/// <param name="LatestFinish">The day it is finished when it starts then; null where nothing bounds it.</param>
/// <param name="Slack">Working-day steps from the earliest to the latest start; negative when it is too late already.</param>
/// <param name="CanStart">Whether all it waits for is satisfied today.</param>
public sealed record PlannedTask(
    string Id,
    LocalDate? Due,
    TaskState State,
    LocalDate? EarliestStart,
    LocalDate? EarliestFinish,
    LocalDate? LatestStart,
    LocalDate? LatestFinish,
    int? Slack,
    bool CanStart
)
{
    /// <summary>Whether it has no day to lose.</summary>
    public bool Critical => Slack <= 0;

    /// <summary>Whether there is still something to do.</summary>
    public bool Unfinished => EarliestStart is not null;
}

/// <summary>A stage's place in the plan.</summary>
/// <param name="Id">The stage's id.</param>
/// <param name="State">Its state today.</param>
/// <param name="Opened">Whether the gates before it are passed and the day has come on which its first task may be begun.</param>
public sealed record PlannedStage(string Id, StageState State, bool Opened);

/// <summary>How far the tasks are that must be finished before the first day.</summary>
/// <param name="Done">Required day-one tasks done.</param>
/// <param name="Of">Required day-one tasks in all, skipped ones left out.</param>
public sealed record Readiness(int Done, int Of)
{
    /// <summary>Whole per cent, rounded down; 100 when there is nothing to do.</summary>
    public int Percent => Of == 0 ? 100 : 100 * Done / Of;
}

/// <summary>A task's state; the first that fits.</summary>
public enum TaskState
{
    /// <summary>Does not apply.</summary>
    Skipped,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Due before today.</summary>
    Late,

    /// <summary>Its slack is negative: it will be late unless something changes.</summary>
    AtRisk,

    /// <summary>All it waits for is satisfied today.</summary>
    Ready,

    /// <summary>It waits for a task, a gate or an opening.</summary>
    Waiting,
}

/// <summary>A stage's state.</summary>
public enum StageState
{
    /// <summary>Every required task is done or skipped.</summary>
    Passed,

    /// <summary>All stages it waits for are passed.</summary>
    Open,

    /// <summary>A stage it waits for is not passed.</summary>
    Closed,
}
