using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.PayRuns;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.PayRuns;

/// <summary>Says of a task of a pay run that it is done, does not apply, or is still to be done.</summary>
public sealed class SettleRunTask(FidDb db)
{
    public async Task<ActResult> DoAsync(SettleRunTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        string? why = null;
        if (request.To == RunTaskState.Skipped && Reason.Require(request.Why, "Say why it does not apply.", out why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RunChecklistsAsync(db, cancellation);
        var checklist = await db.RunChecklists.AsNoTracking().SingleOrDefaultAsync(c => c.Id == request.Checklist, cancellation);
        var task = await db.RunTasks.SingleOrDefaultAsync(t => t.ChecklistId == request.Checklist && t.Key == request.Key, cancellation);
        var isOwn = task is not null && actor.Tasks.AreNamedBy(task.Owner);
        if (checklist is null || task is null || !(isOwn || actor.May(Actions.See, Things.Pay)))
            return Refusal.NotFound;
        // Whose task it is says that it is done; that it does not apply is for those who answer for the run.
        var mayAll = actor.May(Actions.Edit, Things.Pay);
        if (!mayAll && !(isOwn && request.To != RunTaskState.Skipped && StateOf(task) != RunTaskState.Skipped))
            return Refusal.Forbidden;
        if (StateOf(task) == request.To)
            return ActResult.Done;
        var author = actor.Author("payCheck");
        var isDone = request.To == RunTaskState.Done;
        (task.Done, task.DoneBy, task.SkippedWhy) = (isDone ? actor.Today : null, isDone ? author.Name : null, why);
        act.Note(author.Change(ActionOf(request.To), checklist.Id, $"{RunName.Of(checklist)} {task.Key}", why));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>How a task stands.</summary>
    public static RunTaskState StateOf(RunTask task) =>
        task.SkippedWhy is not null ? RunTaskState.Skipped
        : task.Done is not null ? RunTaskState.Done
        : RunTaskState.Open;

    private static string ActionOf(RunTaskState to) =>
        to switch
        {
            RunTaskState.Done => "payRun.taskDone",
            RunTaskState.Skipped => "payRun.taskSkipped",
            _ => "payRun.taskReopened",
        };
}

/// <param name="Why">Why it does not apply.</param>
public sealed record SettleRunTaskRequest(Guid Checklist, string Key, RunTaskState To, string? Why);

/// <summary>How a task of a pay run stands.</summary>
public enum RunTaskState
{
    /// <summary>It is to be done.</summary>
    Open,

    /// <summary>It is done.</summary>
    Done,

    /// <summary>It does not apply to this run.</summary>
    Skipped,
}
