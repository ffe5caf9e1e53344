using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Hires;

/// <summary>Says that a task applies after all.</summary>
public sealed class UnskipTask(FidDb db)
{
    public async Task<ActResult> DoAsync(UnskipTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await TaskInHand.TakeAsync(db, actor, request.Hire, request.Task, ownToo: false, cancellation)).IsDone(out var task, out var refused))
            return refused;
        var author = actor.Author("checklist");
        task.SkippedWhy = null;
        return await TaskInHand.DoneAsync(act, db, task, author.Change("task.unskipped", request.Hire, request.Task), cancellation);
    }
}

/// <param name="Task">The task's key.</param>
public sealed record UnskipTaskRequest(Guid Hire, string Task);
