using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>One thing done to one task, or to many of many hires: what all acts of that kind have in common. Each task stands for itself:
/// one that cannot be changed any more stays, and the others are changed.</summary>
internal static class TaskChanges
{
    /// <summary>The most tasks that are changed at once.</summary>
    public const int Most = 500;

    /// <summary>Changes tasks, puts each into the trail with what it was, and commits it. What changes nothing leaves no trace.</summary>
    /// <param name="request">What was asked for, by which the key is told from that of another request.</param>
    public static async Task<ActResult<TasksChanged>> MakeAsync<T>(
        FidDb db,
        T request,
        IReadOnlyList<TaskRef>? tasks,
        TaskChange change,
        Actor actor,
        CancellationToken cancellation
    )
    {
        if (!change.OwnToo && !actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (Check(tasks) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        TaskRef[] wanted = [.. tasks!.Distinct()];
        if (act.IsDoneAlready)
            return await DoneBeforeAsync(db, wanted, change.Action, actor, cancellation);
        var (held, left) = await TasksInHand.TakeAsync(db, actor, wanted, change.OwnToo, cancellation);
        var leaving = left.ToList();
        var entries = new List<Change>();
        var author = actor.Author("checklist");
        foreach (var task in held)
        {
            if (change.Make(task) is { } why)
                leaving.Add(new TaskLeft(TaskRef.Of(task), why));
            else if (TaskFacts.OfChange(db, task) is { } facts)
                entries.Add(act.Note(author.Change(change.Action, task.HireId, task.Key, change.Why) with { Details = facts.Write() }));
        }
        if (leaving.Count == wanted.Length)
            return leaving[0].Why;
        await act.CommitAsync(cancellation);
        return new TasksChanged([.. entries.Select(e => e.Id)], leaving);
    }

    // A request without a list, with an empty one, or with too much in it.
    internal static Problem? Check(IReadOnlyList<TaskRef>? tasks) =>
        tasks is not { Count: > 0 } || tasks.Any(t => t?.Key is null) ? new Problem("/tasks", "missing", "Choose the tasks.")
        : tasks.Count > Most ? new Problem("/tasks", "too-many", $"Choose at most {Most} tasks at once.")
        : null;

    // What was done under the key before can still be taken back.
    private static async Task<TasksChanged> DoneBeforeAsync(FidDb db, TaskRef[] tasks, string action, Actor actor, CancellationToken cancellation)
    {
        var (hires, keys) = (tasks.Select(t => t.Hire).Distinct().ToArray(), tasks.Select(t => t.Key).ToArray());
        var latest = await db
            .Changes.AsNoTracking()
            .Where(c => hires.Contains(c.SubjectId) && keys.Contains(c.Part) && c.Action == action && c.ById == actor.AccountId)
            .GroupBy(c => new { c.SubjectId, c.Part })
            .Select(g => g.OrderByDescending(c => c.At).First())
            .ToListAsync(cancellation);
        return new TasksChanged([.. latest.Where(c => tasks.Contains(new TaskRef(c.SubjectId, c.Part!))).Select(c => c.Id)], []);
    }
}

/// <summary>What is done to each of some tasks.</summary>
/// <param name="Action">As the trail names it.</param>
/// <param name="OwnToo">Whether those who may not change the tasks of others may do it to their own.</param>
/// <param name="Make">Does it, or says why it cannot be done and leaves the task as it is.</param>
/// <param name="Why">The reason that was given.</param>
internal sealed record TaskChange(string Action, bool OwnToo, Func<HireTask, Refusal?> Make, string? Why = null);
