using Fid.Acts.Hires;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>Whose tasks somebody may change, and tasks held while they do.</summary>
public static class TasksInHand
{
    internal static readonly Refusal Closed = Refusal.Conflict("closed", "This hire is closed. Its tasks stay as they are.");

    internal static readonly Refusal IsDone = Refusal.Conflict("done", "It is done already.");

    internal static readonly Refusal IsNotOpen = Refusal.Conflict("done", "It is done already, or does not apply.");

    internal static readonly Refusal ByItself = Refusal.Conflict(
        "by-itself",
        "This completes itself once the record has what it asks for. If it does not apply here, skip it with a reason."
    );

    internal static readonly Refusal ByCondition = Refusal.Conflict(
        "by-condition",
        "Its condition says that it does not apply. Change the record or the template, or add a task of its own."
    );

    /// <summary>Whether the actor may tick a task off: their own, and those they may change whosoever they are.</summary>
    public static async Task<bool> MayTickAsync(FidDb db, Actor actor, HireTask task, CancellationToken cancellation) =>
        (await (await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation))(db.Hires).AnyAsync(h => h.Id == task.HireId, cancellation))
        || await new OwnTasks(actor, db).IncludeAsync(task, cancellation);

    /// <summary>The tasks of hires that are under way, locked, by the hire and key: whoever comes second finds them done. Beside them, which of those
    /// wanted are not among them, and why.</summary>
    /// <param name="ownToo">Whether those that are the actor's own will do, though they may not change those of others.</param>
    internal static async Task<(IReadOnlyList<HireTask> Tasks, IReadOnlyList<TaskLeft> Left)> TakeAsync(
        FidDb db,
        Actor actor,
        IReadOnlyCollection<TaskRef> wanted,
        bool ownToo,
        CancellationToken cancellation
    )
    {
        await Locks.TasksAsync(db, wanted, cancellation);
        var ids = wanted.Select(w => w.Hire).Distinct().ToArray();
        var keys = wanted.Select(w => w.Key).Distinct().ToArray();
        var found = (await db.HireTasks.Where(t => ids.Contains(t.HireId) && keys.Contains(t.Key)).ToListAsync(cancellation)).ToDictionary(TaskRef.Of);
        var reached = (
            await (await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation))(db.Hires)
                .Where(h => ids.Contains(h.Id))
                .Select(h => h.Id)
                .ToListAsync(cancellation)
        ).ToHashSet();
        var own = new OwnTasks(actor, db);
        var isOwn = ownToo ? await own.AmongAsync(ids, cancellation) : (_, _) => false;
        var closed = (await db.Hires.Where(h => ids.Contains(h.Id) && h.Closed != null).Select(h => h.Id).ToListAsync(cancellation)).ToHashSet();
        var (tasks, left) = (new List<HireTask>(), new List<TaskLeft>());
        foreach (var task in wanted)
        {
            if (!found.TryGetValue(task, out var there) || !(reached.Contains(task.Hire) || isOwn(there.Owner, task.Hire)))
                left.Add(new TaskLeft(task, Refusal.NotFound));
            else if (closed.Contains(task.Hire))
                left.Add(new TaskLeft(task, Closed));
            else
                tasks.Add(there);
        }
        return (tasks, left);
    }
}
