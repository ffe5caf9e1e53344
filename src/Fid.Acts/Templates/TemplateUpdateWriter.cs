using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Templates;

/// <summary>Brings hires to newer versions of their templates, and takes that back.</summary>
public sealed class TemplateUpdateWriter(FidDb db, RecordWriter records)
{
    /// <summary>Takes what was decided for each hire into the context. What is not taken stays, and is the hire's own from then on.</summary>
    /// <param name="decided">For each hire, the facts to take. Their records are locked.</param>
    /// <returns>The run, or what does not go together; nothing is to be kept then.</returns>
    public async Task<(TemplateUpdateRun? Run, IReadOnlyList<RecordProblem> Problems)> ApplyAsync(
        IReadOnlyList<(HireUpdate Update, IReadOnlySet<string> Take)> decided,
        Author author,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (before, edited) = (new List<HireBefore>(), new List<RecordEdit>());
        var (employments, shown) = await records.ReadAsync(decided.Select(d => d.Update.Hire.EmploymentId), cancellation);
        var set = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set;
        var held = await RowsAsync([.. employments.Values], today, cancellation);
        foreach (var (update, take) in decided)
        {
            var hire = update.Hire;
            var change = author.Change("template.updated", hire.EmploymentId, string.Join(' ', update.Layers));
            db.Changes.Add(change);
            var (tasks, added) = TakeTasks(hire, update, take);
            before.Add(new HireBefore(hire.Id, change.Id, hire.TemplateVersion, hire.Layers, tasks, added, [.. hire.Entries]));
            var employment = employments[hire.EmploymentId];
            var rows = TakeEntries(hire, update, take)
                .SelectMany(e => TemplateRows.Change(set, employment, e.Before, e.After, held[hire.EmploymentId], update.Layers[^1]))
                .ToList();
            hire.Layers = update.Layers;
            hire.TemplateVersion = update.Layers.Select(RoleTemplate.ReadLayer).First(l => l?.Code == hire.TemplateCode)!.Value.Version;
            var edits = take.Where(f => f.StartsWith(HireFacts.Values, StringComparison.Ordinal))
                .Select(f => f[HireFacts.Values.Length..])
                .Select(field =>
                {
                    var value = update.Theirs!.Values.GetValueOrDefault(field);
                    var (json, from) =
                        value is null ? (null, Layer.Typed)
                        : value.From == Layer.Typed ? (value.Displaced[0].Value, value.Displaced[0].From)
                        : ((System.Text.Json.JsonElement?)value.Value, value.From);
                    return new FieldEdit(
                        TemplateRows.OwnAddress(set, field, employment),
                        json is { ValueKind: System.Text.Json.JsonValueKind.Null } ? null : json,
                        from,
                        null
                    );
                })
                .Concat(rows)
                .ToList();
            edits =
            [
                .. edits,
                // A row that comes says what it is about.
                .. TemplateRows
                    .Abouts(set, take.Where(f => f.StartsWith(HireFacts.Values, StringComparison.Ordinal)).Select(f => f[HireFacts.Values.Length..]))
                    .Select(a => (Address: TemplateRows.OwnAddress(set, a.Address, employment), a.About, By: TemplateRows.OwnAddress(set, a.By, employment)))
                    .Where(a => !held[hire.EmploymentId].ContainsKey(a.Address) && edits.Exists(e => e.Field == a.By && e.Value is not null))
                    .Select(a => new FieldEdit(a.Address, a.About, update.Layers[^1], null)),
            ];
            edited.Add(new RecordEdit(employment, shown[hire.EmploymentId], [.. edits.DistinctBy(e => e.Field)], change));
        }
        if (await records.SaveAsync(edited, today, cancellation) is { Count: > 0 } problems)
            return (null, problems);
        var run = new TemplateUpdateRun
        {
            At = author.At,
            ByName = author.Name,
            Hires = before,
        };
        db.Add(run);
        return (run, []);
    }

    /// <summary>Takes an update back, hire by hire. Tasks done since stay done; a hire whose values were changed since stays as it is.</summary>
    /// <returns>The hires that stay as they are.</returns>
    public async Task<IReadOnlyList<Guid>> UndoAsync(TemplateUpdateRun run, Author author, LocalDate today, CancellationToken cancellation)
    {
        var left = new List<Guid>();
        foreach (var before in run.Hires)
        {
            var hire = await db.Hires.Include(h => h.Tasks).Include(h => h.Entries).AsSplitQuery().SingleAsync(h => h.Id == before.HireId, cancellation);
            var employment = await db.Employments.SingleAsync(e => e.Id == hire.EmploymentId, cancellation);
            var record = await db.CurrentRecords.SingleAsync(r => r.EmploymentId == hire.EmploymentId, cancellation);
            var made = await db.Changes.SingleAsync(c => c.Id == before.ChangeId, cancellation);
            var change = author.Change("template.updateUndone", hire.EmploymentId, string.Join(' ', before.Layers));
            if (
                await records.TouchedBy(employment, made).AnyAsync(cancellation)
                && await records.TakeBackAsync(employment, record, made, change, today, cancellation) is not null
            )
            {
                left.Add(hire.Id);
                continue;
            }
            db.Changes.Add(change);
            foreach (var key in before.Added)
                if (hire.Tasks.Find(t => t.Key == key) is { IsDecided: false } task)
                    db.Remove(task);
            foreach (var old in before.Tasks)
            {
                if (hire.Tasks.Find(t => t.Key == old.Key) is not { } there)
                    db.Add(old.Copy(hire.Id));
                else if (!there.IsDecided)
                    foreach (var property in HireFacts.TaskProperties)
                        HireFacts.Take(there, old, property);
            }
            db.RemoveRange(hire.Entries);
            await db.SaveChangesAsync(cancellation);
            foreach (var entry in before.Entries)
                db.Add(entry.Copy(hire.Id));
            (hire.Layers, hire.TemplateVersion) = (before.Layers, before.Version);
        }
        run.Undone = true;
        return left;
    }

    private (HireTask[] Before, string[] Added) TakeTasks(Hire hire, HireUpdate update, IReadOnlySet<string> take)
    {
        var (before, added) = (new Dictionary<string, HireTask>(), new List<string>());
        foreach (var fact in take.Where(f => f.StartsWith("tasks/", StringComparison.Ordinal)).OrderBy(f => f.Count(c => c == '/')))
        {
            var key = fact.Split('/', 3)[1];
            var (mine, theirs) = (hire.Tasks.Find(t => t.Key == key), update.Tasks.FirstOrDefault(t => t.Key == key));
            if (mine is not null && !added.Contains(key))
                before.TryAdd(key, mine.Copy(hire.Id));
            if (fact.Split('/', 3) is [_, _, var property])
            {
                if (mine is not null && theirs is not null)
                    HireFacts.Take(mine, theirs, property);
            }
            else if (theirs is null && mine is not null)
            {
                hire.Tasks.Remove(mine);
                db.Remove(mine);
            }
            else if (theirs is not null && mine is null)
            {
                added.Add(key);
                db.Add(theirs.Copy(hire.Id));
            }
        }
        // What went is waited for no longer.
        var left = hire.Tasks.Select(t => t.Key).ToHashSet();
        foreach (var task in hire.Tasks.Where(t => !t.After.All(left.Contains)))
        {
            before.TryAdd(task.Key, task.Copy(hire.Id));
            var kept = task.After.Select((a, i) => (a, task.Lags[i])).Where(a => left.Contains(a.a)).ToArray();
            (task.After, task.Lags) = ([.. kept.Select(k => k.a)], [.. kept.Select(k => k.Item2)]);
        }
        return ([.. before.Values.Where(b => !added.Contains(b.Key))], [.. added]);
    }

    // What stands in rows of some records now, by employment and address.
    private async Task<Dictionary<Guid, Dictionary<string, RecordValue>>> RowsAsync(
        IReadOnlyCollection<Employment> employments,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var owners = employments.SelectMany(e => new[] { e.Id, e.PersonId }).ToArray();
        var believed = (
            await db
                .RecordValues.AsNoTracking()
                .Where(v => owners.Contains(v.OwnerId) && v.RowId != null && v.Known.UpperBoundInfinite)
                .ToListAsync(cancellation)
        ).ToLookup(v => v.OwnerId);
        return employments.ToDictionary(
            e => e.Id,
            e =>
            {
                var day = RecordProjection.AsOf(e, today);
                return believed[e.Id].Concat(believed[e.PersonId]).Where(v => v.HoldsOn(day)).ToDictionary(v => v.Address);
            }
        );
    }

    private List<(HireEntry? Before, HireEntry? After)> TakeEntries(Hire hire, HireUpdate update, IReadOnlySet<string> take)
    {
        var taken = new List<(HireEntry?, HireEntry?)>();
        var theirs = HireEntry.Of(update.Theirs!).ToDictionary(e => (e.List, e.Key));
        foreach (var list in TemplateLists.All.Where(l => l != TemplateLists.Tasks))
        foreach (var fact in take.Where(f => f.StartsWith(list + "/", StringComparison.Ordinal)))
        {
            var key = fact[(list.Length + 1)..];
            var mine = hire.Entries.Find(e => e.List == list && e.Key == key);
            if (theirs.GetValueOrDefault((list, key)) is not { } wanted)
            {
                if (mine is not null)
                {
                    taken.Add((mine, null));
                    db.Remove(mine);
                }
            }
            else if (mine is not null)
            {
                taken.Add((mine.Copy(), wanted));
                mine.Properties = wanted.Properties;
            }
            else
            {
                taken.Add((null, wanted));
                db.Add(wanted.Copy(hire.Id));
            }
        }
        return taken;
    }
}
