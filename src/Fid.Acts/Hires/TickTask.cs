using Fid.Core.Fields;
using Fid.Data;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Ticks a task off. Whoever says it second, without saying when, says nothing new.</summary>
public sealed class TickTask(FidDb db)
{
    public async Task<ActResult> DoAsync(TickTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        var done = request.Done ?? actor.Today;
        if (done > actor.Today)
            return Refusal.Invalid("/done", "in-future", "A task is done today or on a day before.");
        if (!ValueCheck.IsSensible(done))
            return Refusal.Invalid("/done", "bad-date", "Enter a date from 1900 to 2199.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await TaskInHand.TakeAsync(db, actor, request.Hire, request.Task, ownToo: true, cancellation)).IsDone(out var task, out var refused))
            return refused;
        var author = actor.Author("checklist");
        if (task.Done is null || (request.Done is { } on && on != task.Done))
            (task.Done, task.DoneBy, task.SkippedWhy) = (done, author.Name, null);
        return await TaskInHand.DoneAsync(act, db, task, author.Change("task.done", request.Hire, request.Task), cancellation);
    }
}

/// <param name="Task">The task's key.</param>
/// <param name="Done">The day it was done; today when left out.</param>
public sealed record TickTaskRequest(Guid Hire, string Task, LocalDate? Done);
