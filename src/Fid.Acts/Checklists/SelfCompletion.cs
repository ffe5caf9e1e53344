using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Tasks;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Checklists;

/// <summary>Tasks that are complete when the record says so: done when it does, and open again when it ceases to.</summary>
public static class SelfCompletion
{
    /// <summary>Brings those of some hires to what their records say, as part of an act that holds the hires. They are saved by it.</summary>
    /// <returns>How many it completed or opened again.</returns>
    internal static async Task<int> FollowRecordsAsync(FidDb db, ActScope act, Actor actor, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        var tasks = await db
            .HireTasks.Where(t => hires.Contains(t.HireId) && TaskFulfilment.ByThemselves.Contains(t.Kind) && t.SkippedWhy == null)
            .OrderBy(t => t.HireId)
            .ThenBy(t => t.Position)
            .ToListAsync(cancellation);
        if (tasks.Count == 0)
            return 0;
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var records = await RecordsAsync(db, fields.Set, actor, [.. tasks.Select(t => t.HireId).Distinct()], cancellation);
        var (author, count) = (actor.Author("checklist"), 0);
        foreach (var task in tasks)
        {
            if (!records.TryGetValue(task.HireId, out var record) || TaskFulfilment.IsMet(task.Kind, task.About, record) == task.Done is not null)
                continue;
            task.DoneBy = task.Done is null ? actor.Name : null;
            task.Done = task.Done is null ? actor.Today : null;
            if (TaskFacts.OfChange(db, task) is not { } facts)
                continue;
            act.Note(author.Change(task.Done is null ? UntickTasks.Action : TickTasks.Action, task.HireId, task.Key) with { Details = facts.Write() });
            count++;
        }
        await db.SaveChangesAsync(cancellation);
        return count;
    }

    /// <summary>What the records of some hires under way hold, by hire.</summary>
    public static async Task<Dictionary<Guid, RecordContent>> RecordsAsync(FidDb db, FieldSet fields, Actor actor, Guid[] hires, CancellationToken cancellation)
    {
        var records = await db
            .Hires.Where(h => hires.Contains(h.Id) && h.Closed == null)
            .Join(
                db.CurrentRecords,
                h => h.EmploymentId,
                r => r.EmploymentId,
                (h, r) =>
                    new
                    {
                        h.Id,
                        r.EmploymentId,
                        r.AsOf,
                    }
            )
            .ToListAsync(cancellation);
        var kept = await KeptItemsAsync(db, cancellation);
        var values = await ShownValues.LoadAsync(db, [.. records.Select(r => r.EmploymentId)], cancellation);
        return records.ToDictionary(r => r.Id, r => new RecordContent(fields, values[r.EmploymentId].ToDictionary(), r.AsOf, actor.Today, kept));
    }

    // Of an item the firm says whether it is given back; a uniform, say, may be for keeps.
    private static async Task<IReadOnlySet<string>> KeptItemsAsync(FidDb db, CancellationToken cancellation) =>
        (await db.ListEntries.AsNoTracking().Where(e => e.List == "items").ToListAsync(cancellation))
            .Select(e => e.Content())
            .Where(e => e.Values.TryGetValue("returned", out var returned) && returned is false)
            .Select(e => e.Code)
            .ToHashSet(StringComparer.Ordinal);
}
