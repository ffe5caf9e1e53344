using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>Takes back what was done to tasks, all of it or nothing: what was changed again since stays.</summary>
public sealed class TakeBackTaskChanges(FidDb db)
{
    /// <summary>What takes back a change is a change itself, and can be taken back.</summary>
    private const string Action = "task.takenBack";

    // What the owner of a task may do without being allowed to change tasks.
    private static readonly string[] OfOwners =
    [
        TickTasks.Action,
        UntickTasks.Action,
        NoteTasks.Action,
        AttachToTasks.Action,
        TakeTasks.Taken,
        TakeTasks.GivenBack,
    ];

    public async Task<ActResult<TasksChanged>> DoAsync(TakeBackTaskChangesRequest request, Actor actor, CancellationToken cancellation)
    {
        if (request.Changes is not { Count: > 0 and <= TaskChanges.Most })
            return Refusal.Invalid("/changes", "missing", "Say what is to be taken back.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return new TasksChanged([], []);
        var made = await db
            .Changes.AsNoTracking()
            .Where(c => request.Changes.Contains(c.Id) && c.Action.StartsWith("task.") && c.Part != null)
            .OrderByDescending(c => c.At)
            .ThenByDescending(c => c.Id)
            .ToListAsync(cancellation);
        if (made.Count != request.Changes.Distinct().Count())
            return Refusal.NotFound;
        var own = made.TrueForAll(c => OfOwners.Contains(c.Action) || (c.Action == Action && c.ById == actor.AccountId));
        if (!own && !actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (made.Exists(c => c.Details is not null && TaskFacts.Read(c.Details) is { IsAddition: true }))
            await Locks.RecordsAsync(db, await EmploymentsAsync(made, cancellation), cancellation);
        TaskRef[] wanted = [.. made.Select(c => new TaskRef(c.SubjectId, c.Part!)).Distinct()];
        var (held, left) = await TasksInHand.TakeAsync(db, actor, wanted, own, cancellation);
        if (left.Count > 0)
            return left[0].Why;
        var tasks = held.ToDictionary(TaskRef.Of);
        var entries = new List<Change>();
        var author = actor.Author("checklist");
        foreach (var change in made)
        {
            var task = tasks[new TaskRef(change.SubjectId, change.Part!)];
            if (TaskFacts.Read(change.Details) is not { } facts || !facts.StillHolds(db, task))
                return Refusal.Conflict("changed-since", $"{task.Name} was changed since. Nothing was taken back.");
            facts.TakeBack(db, task);
            entries.Add(author.Change(Action, change.SubjectId, change.Part) with { Details = facts.Reversed(task).Write() });
        }
        if (await IsWaitedForAsync(made, tasks, cancellation) is { } waited)
            return Refusal.Conflict("changed-since", $"Another task comes after {waited} by now. Nothing was taken back.");
        entries.ForEach(e => act.Note(e));
        await act.CommitAsync(cancellation);
        return new TasksChanged([.. entries.Select(e => e.Id)], []);
    }

    private async Task<List<Guid>> EmploymentsAsync(List<Change> made, CancellationToken cancellation)
    {
        var hires = made.Select(c => c.SubjectId).Distinct().ToArray();
        return await db.Hires.Where(h => hires.Contains(h.Id)).Select(h => h.EmploymentId).ToListAsync(cancellation);
    }

    // The name of a task that goes while another still comes after it; null where there is none.
    private async Task<string?> IsWaitedForAsync(List<Change> made, Dictionary<TaskRef, Data.Hires.HireTask> tasks, CancellationToken cancellation)
    {
        var going = tasks.Values.Where(t => db.Entry(t).State == EntityState.Deleted).ToList();
        if (going.Count == 0)
            return null;
        var hires = made.Select(c => c.SubjectId).Distinct().ToArray();
        var staying = (await db.HireTasks.Where(t => hires.Contains(t.HireId)).ToListAsync(cancellation)).Except(going).ToLookup(t => t.HireId);
        return going.Find(g => staying[g.HireId].Any(t => t.After.Contains(g.Key)))?.Name;
    }
}

/// <param name="Changes">The entries in the trail.</param>
public sealed record TakeBackTaskChangesRequest(IReadOnlyList<Guid> Changes);
