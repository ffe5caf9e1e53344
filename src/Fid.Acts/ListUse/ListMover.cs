using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.ListUse;

/// <summary>Moves whoever and whatever uses one entry of a list to another.</summary>
public sealed class ListMover(FidDb db, RecordWriter records)
{
    private const int Batch = 200;

    /// <summary>
    /// Moves all users of an entry: people from a day on (before it they keep the old one), templates, checklists under way, other
    /// entries and accounts at once. Everything goes into the context's transaction, and is saved. Returns what keeps somebody from
    /// having the other, with their number as its path; nothing is to be kept then.
    /// </summary>
    public async Task<Problem?> MoveAsync(
        ListDefinition list,
        string from,
        string to,
        LocalDate on,
        Author author,
        string? why,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var usage = new ListUsage(db, today);
        foreach (var (code, template) in await usage.TemplatesAsync(list, cancellation))
        {
            if (code != from)
                continue;
            var spec = TemplateReferences.Replace(template.Spec, list.Key, from, to, await new LiveFieldsLoader(db).LiveAsync(cancellation));
            new TemplatePublishing(db).Put(template, spec, author, "template.entryMoved", $"{list.Key}:{from}→{to}", why);
        }
        foreach (var (code, entry) in await usage.EntriesAsync(list, cancellation))
        {
            if (code != from)
                continue;
            var before = ListWriter.Describe(entry);
            var content = entry.Content();
            var columns = ShippedLists.Get(entry.List);
            entry.Take(
                content with
                {
                    Values = content.Values.ToDictionary(
                        v => v.Key,
                        v => columns.Find(v.Key) is { } column && column.List == list.Key ? EntryCheck.Replace(column, v.Value, from, to) : v.Value
                    ),
                }
            );
            db.Changes.Add(author.Change("list.changed", entry.Id, entry.List, why) with { Details = ListWriter.Details(before, ListWriter.Describe(entry)) });
        }
        var firm = await db.Firms.Select(f => f.Id).SingleAsync(cancellation);
        foreach (var task in (await db.SharedTasks.ToListAsync(cancellation)).Where(t => TemplateReferences.OfTask(t.Properties, list.Key).Contains(from)))
        {
            task.Properties = TemplateReferences.ReplaceInTask(task.Properties, list.Key, from, to);
            db.Changes.Add(author.Change("sharedTask.entryMoved", firm, $"{task.Key} {list.Key}:{from}→{to}", why));
        }
        if (list.Key == "teams")
            await MoveTeamAsync(from, to, cancellation);
        if (list.Key == "calendars")
        {
            await db.HireTasks.Where(t => t.CalendarCode == from).ExecuteUpdateAsync(s => s.SetProperty(t => t.CalendarCode, to), cancellation);
            await db.RunTasks.Where(t => t.CalendarCode == from).ExecuteUpdateAsync(s => s.SetProperty(t => t.CalendarCode, to), cancellation);
        }
        await db.SaveChangesAsync(cancellation);
        db.ChangeTracker.Clear();
        return await MovePeopleAsync(list, from, to, on, author, why, today, cancellation);
    }

    private async Task<Problem?> MovePeopleAsync(
        ListDefinition list,
        string from,
        string to,
        LocalDate on,
        Author author,
        string? why,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var fields = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).FieldsOf(list.Key);
        if (fields.Length == 0)
            return null;
        var holding = await db
            .Database.SqlQuery<Held>(
                $"""
                select distinct on (v.owner_id, v.field, v.row_id) v.owner_id, v.field || coalesce('@' || v.row_id, '') as field, v.value
                from record_values v
                where v.field = any({fields}) and v.value ? {from} and upper_inf(v.known) and (upper_inf(v.effective) or upper(v.effective) > {on})
                order by v.owner_id, v.field, v.row_id, v.effective
                """
            )
            .ToListAsync(cancellation);
        var holders = holding.Select(h => h.OwnerId).Distinct().ToArray();
        await Locks.RecordsAsync(
            db,
            await db.Employments.Where(e => holders.Contains(e.Id) || holders.Contains(e.PersonId)).Select(e => e.Id).ToListAsync(cancellation),
            cancellation
        );
        await records.LockUniqueAsync(fields, cancellation);
        foreach (var batch in holding.GroupBy(h => h.OwnerId).Chunk(Batch))
        {
            var owners = batch.Select(b => b.Key).ToArray();
            // What is a fact of the person is changed through their last stint, and shows in all of them.
            var stints = await db.Employments.Where(e => owners.Contains(e.Id) || owners.Contains(e.PersonId)).OrderBy(e => e.Start).ToListAsync(cancellation);
            var ids = stints.Select(e => e.Id).ToArray();
            var now = await db.CurrentRecords.Where(r => ids.Contains(r.EmploymentId)).ToDictionaryAsync(r => r.EmploymentId, cancellation);
            var moved = new List<RecordEdit>();
            foreach (var owner in batch)
            {
                if (stints.FindLast(e => e.Id == owner.Key || e.PersonId == owner.Key) is not { } employment)
                    continue;
                var isPerson = employment.Id != owner.Key;
                var change = author.Change("record.entryMoved", employment.Id, $"{list.Key}:{from}→{to}", why);
                db.Changes.Add(change);
                var edits = owner
                    .Select(h => new FieldEdit(h.Field, FieldValues.Replace(h.Value, from, to), "list", isPerson ? on : LocalDate.Max(on, employment.Start)))
                    .ToList();
                moved.Add(new RecordEdit(employment, now[employment.Id], edits, change) { IsAgreed = true });
            }
            if (await records.SaveAsync(moved, today, cancellation) is [var wrong, ..])
                return wrong.Problem.Under($"/{moved[wrong.Record].Employment.Number}");
            await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        return null;
    }

    private async Task MoveTeamAsync(string from, string to, CancellationToken cancellation)
    {
        var (old, next) = (HireTask.TeamPrefix + from, HireTask.TeamPrefix + to);
        await db
            .HireTasks.Where(t => t.Owner == old && t.Done == null && t.SkippedWhy == null)
            .ExecuteUpdateAsync(s => s.SetProperty(t => t.Owner, next), cancellation);
        await db
            .RunTasks.Where(t => t.Owner == old && t.Done == null && t.SkippedWhy == null)
            .ExecuteUpdateAsync(s => s.SetProperty(t => t.Owner, next), cancellation);
        await db
            .HireTasks.Where(t => t.Contact == old && t.Done == null && t.SkippedWhy == null)
            .ExecuteUpdateAsync(s => s.SetProperty(t => t.Contact, next), cancellation);
        foreach (var user in await db.Users.Where(u => u.Teams.Contains(from)).ToListAsync(cancellation))
            user.Teams = [.. user.Teams.Select(t => t == from ? to : t).Distinct(StringComparer.Ordinal)];
    }

    private sealed record Held(Guid OwnerId, string Field, JsonElement Value);
}
