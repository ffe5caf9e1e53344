using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Hires;

/// <summary>Says that a task does not apply, and why.</summary>
public sealed class SkipTask(FidDb db)
{
    public async Task<ActResult> DoAsync(SkipTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (Reason.Require(request.Why, "Say why it does not apply.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await TaskInHand.TakeAsync(db, actor, request.Hire, request.Task, ownToo: false, cancellation)).IsDone(out var task, out var refused))
            return refused;
        var author = actor.Author("checklist");
        (task.SkippedWhy, task.Done, task.DoneBy) = (why, null, null);
        return await TaskInHand.DoneAsync(act, db, task, author.Change("task.skipped", request.Hire, request.Task, why), cancellation);
    }
}

/// <param name="Task">The task's key.</param>
public sealed record SkipTaskRequest(Guid Hire, string Task, string? Why);
