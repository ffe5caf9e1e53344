using Fid.Acts;
using Fid.Acts.PayRuns;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using NodaTime;

namespace Fid.Server.PayRuns;

/// <summary>What is to be done for a pay run.</summary>
/// <param name="Template">The template it was begun from.</param>
/// <param name="Tasks">By stage, in the order in which they are listed.</param>
/// <param name="Holding">How many tasks still keep the run from being handed over.</param>
/// <param name="IsUntouched">Whether nothing in it is done: it can be taken away.</param>
public sealed record RunChecklistResponse(Guid Id, string? Template, RunTaskResponse[] Tasks, int Holding, bool IsUntouched)
{
    internal static RunChecklistResponse Of(PlannedRun run, RunTaskShowing showing, string? template) =>
        new(
            run.Checklist.Id,
            template,
            [.. run.Tasks.OrderBy(t => showing.Place(t.Task.StageKey)).ThenBy(t => t.Task.Position).Select(showing.Show)],
            run.BeforeHandOver.Count,
            run.Tasks.All(t => t.Task is { Done: null, SkippedWhy: null })
        );
}

/// <summary>A task of a pay run.</summary>
/// <param name="Stage">What its stage is called.</param>
/// <param name="BeforeHandOver">Whether the run may not be handed over before it is done.</param>
/// <param name="IsMine">Whether it is the reader's own, also as one of a team or in somebody's place.</param>
public sealed record RunTaskResponse(
    string Key,
    string Name,
    string Stage,
    string Owner,
    string? OwnerName,
    TaskState State,
    bool CanStart,
    LocalDate? Due,
    LocalDate? EarliestStart,
    LocalDate? LatestFinish,
    int? Slack,
    int Work,
    LocalDate? Done,
    string? DoneBy,
    string? SkippedWhy,
    bool Required,
    bool BeforeHandOver,
    string? Instructions,
    bool IsMine
);

/// <summary>Shows tasks of pay runs to somebody.</summary>
internal sealed class RunTaskShowing(Actor actor, ListNames names, IReadOnlyList<Stage> stages)
{
    private readonly Dictionary<string, Stage> _stages = stages.ToDictionary(s => s.Key, StringComparer.Ordinal);

    /// <summary>The place of a stage among the others.</summary>
    public int Place(string stage) => _stages.GetValueOrDefault(stage)?.Position ?? int.MaxValue;

    public RunTaskResponse Show(PlannedRunTask task) =>
        new(
            task.Task.Key,
            ReaderLanguage.Choose(task.Task.Name, task.Task.NameDe),
            _stages.GetValueOrDefault(task.Task.StageKey)?.Called ?? task.Task.StageKey,
            task.Task.Owner,
            names.Owner(task.Task.Owner),
            task.Planned.State,
            task.Planned.CanStart,
            task.Planned.Due,
            task.Planned.EarliestStart,
            task.Planned.LatestFinish,
            task.Planned.Slack,
            task.Task.Work,
            task.Task.Done,
            task.Task.DoneBy,
            task.Task.SkippedWhy,
            task.Task.Required,
            task.IsBeforeHandOver,
            task.Task.Instructions is null ? null : ReaderLanguage.Choose(task.Task.Instructions, task.Task.InstructionsDe),
            actor.Tasks.AreNamedBy(task.Task.Owner)
        );
}

/// <summary>A template that the checklist of a run can be begun from.</summary>
public sealed record RunTemplate(string Code, string Name);

/// <summary>A task of a pay run that is the reader's own.</summary>
/// <param name="PayGroup">What the pay group is called.</param>
/// <param name="GroupCode">Its code, for those who may look at the run; null for others.</param>
public sealed record OwnRunTask(Guid ChecklistId, string PayGroup, string? GroupCode, PaidPeriod Run, RunTaskResponse Task)
{
    internal static OwnRunTask Of(PlannedRun run, PlannedRunTask task, RunTaskShowing showing, Actor actor) =>
        new(
            run.Checklist.Id,
            run.Run.Group.NameIn(ReaderLanguage.Code),
            actor.May(Actions.See, Things.Pay) ? run.Run.Group.Code : null,
            PaidPeriod.Of(run.Run.Run),
            showing.Show(task)
        );
}

public sealed record BeginChecklistRequest(string PayGroup, LocalDate Period, string Template);

/// <param name="Why">Why it does not apply.</param>
public sealed record SettleTaskRequest(RunTaskState To, string? Why);
