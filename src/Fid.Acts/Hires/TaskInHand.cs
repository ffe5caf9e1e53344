using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Whose tasks somebody may change, and a task held while they do.</summary>
public static class TaskInHand
{
    /// <summary>Whether the actor may tick a task off: coordinators all, others their own.</summary>
    public static async Task<bool> MayTickAsync(FidDb db, Actor actor, HireTask task, CancellationToken cancellation) =>
        actor.MayCoordinate || await (await OwnTasks.OfAsync(actor, db, cancellation)).IncludeAsync(task, cancellation);

    /// <summary>The task of a hire that is under way, locked: whoever comes second finds it done. In its place, why it cannot be changed.</summary>
    internal static async Task<ActResult<HireTask>> TakeAsync(FidDb db, Actor actor, Guid hire, string key, CancellationToken cancellation)
    {
        await Locks.TaskAsync(db, hire, key, cancellation);
        var task = await db.HireTasks.FirstOrDefaultAsync(t => t.HireId == hire && t.Key == key, cancellation);
        if (task is null || !await MayTickAsync(db, actor, task, cancellation))
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
