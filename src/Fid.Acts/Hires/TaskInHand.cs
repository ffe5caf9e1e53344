using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Whose tasks somebody may change, and a task held while they do.</summary>
public static class TaskInHand
{
    /// <summary>Whether the actor may tick a task off: their own, and those they may change whosoever they are.</summary>
    public static async Task<bool> MayTickAsync(FidDb db, Actor actor, HireTask task, CancellationToken cancellation) =>
        await MayChangeAsync(db, actor, task, cancellation) || await new OwnTasks(actor, db).IncludeAsync(task, cancellation);

    // Whether the actor may change a task whosoever it is.
    private static async Task<bool> MayChangeAsync(FidDb db, Actor actor, HireTask task, CancellationToken cancellation) =>
        actor.Rights.MayToAll(Actions.Edit, Things.Task)
        || await (await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation))(db.Hires)
            .AnyAsync(h => h.Id == task.HireId, cancellation);

    /// <summary>The task of a hire that is under way, locked: whoever comes second finds it done. In its place, why it cannot be changed.</summary>
    /// <param name="ownToo">Whether one that is the actor's own will do, though they may not change those of others.</param>
    internal static async Task<ActResult<HireTask>> TakeAsync(FidDb db, Actor actor, Guid hire, string key, bool ownToo, CancellationToken cancellation)
    {
        await Locks.TaskAsync(db, hire, key, cancellation);
        var task = await db.HireTasks.FirstOrDefaultAsync(t => t.HireId == hire && t.Key == key, cancellation);
        if (task is null || !await (ownToo ? MayTickAsync(db, actor, task, cancellation) : MayChangeAsync(db, actor, task, cancellation)))
            return Refusal.NotFound;
        return await db.Hires.AnyAsync(h => h.Id == hire && h.Closed != null, cancellation)
            ? Refusal.Conflict("closed", "This hire is closed. Its tasks stay as they are.")
            : task;
    }

    /// <summary>Puts into the trail what was done to a task, and commits it. What changes nothing leaves no trace.</summary>
    internal static async Task<ActResult> DoneAsync(ActScope act, FidDb db, HireTask task, Data.Changes.Change change, CancellationToken cancellation)
    {
        if (db.Entry(task).State == EntityState.Modified)
            act.Note(change);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}
