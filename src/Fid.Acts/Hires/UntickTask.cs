using Fid.Data;

namespace Fid.Acts.Hires;

/// <summary>Says that a task is not done after all.</summary>
public sealed class UntickTask(FidDb db)
{
    public async Task<ActResult> DoAsync(UntickTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await TaskInHand.TakeAsync(db, actor, request.Hire, request.Task, ownToo: true, cancellation)).IsDone(out var task, out var refused))
            return refused;
        var author = actor.Author("checklist");
        (task.Done, task.DoneBy) = (null, null);
        return await TaskInHand.DoneAsync(act, db, task, author.Change("task.undone", request.Hire, request.Task), cancellation);
    }
}

/// <param name="Task">The task's key.</param>
public sealed record UntickTaskRequest(Guid Hire, string Task);
