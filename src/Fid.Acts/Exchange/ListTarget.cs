using System.Text.Json.Nodes;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Acts.Exchange;

/// <summary>One of the firm's lists, as what a sheet goes into.</summary>
internal sealed class ListTarget(FidDb db, ListDefinition list) : ImportTarget
{
    public override ListDefinition Definition => list;

    public override async Task<IRowChecker> CheckerAsync(ImportRun run, CellStyle style, LocalDate today, CancellationToken cancellation) =>
        await RowChecker.LoadAsync(db, list, run, style, cancellation);

    public override async Task<CellSuggestions> SuggestionsAsync(CancellationToken cancellation) =>
        new(list, await EntryIndex.LoadAsync(db, list, cancellation));

    public override IEnumerable<CellDifference> Differences(string before, RowContent after)
    {
        var was = JsonNode.Parse(before)!;
        foreach (
            var (key, old, now) in new[] { (EntryReader.Name, (string?)was["name"], after.Name), (EntryReader.NameDe, (string?)was["nameDe"], after.NameDe) }
        )
            if (old != now)
                yield return new CellDifference(key, old ?? "", now ?? "");
        var values = EntryJson.Read(list, was["values"]!.ToJsonString());
        var fresh = EntryJson.Read(list, after.Values);
        foreach (var column in list.Columns)
        {
            var (old, now) = (
                ColumnValue.ToText(column, values.GetValueOrDefault(column.Key)),
                ColumnValue.ToText(column, fresh.GetValueOrDefault(column.Key))
            );
            if (old != now)
                yield return new CellDifference(column.Key, old, now);
        }
    }

    internal override async Task<bool> ApplyAsync(ImportRun run, Actor actor, Func<int, Task> tell, CancellationToken cancellation)
    {
        await Locks.ListAsync(db, run.List, cancellation);
        return await ReferencesStandAsync(run, cancellation) && await WriteAsync(run, cancellation);
    }

    internal override async Task<string?> UndoAsync(ImportRun run, Actor actor, CancellationToken cancellation)
    {
        await Locks.ListForDeletingAsync(db, run.List, cancellation);
        if (await WhyNotUndoAsync(run, actor.Today, cancellation) is { } why)
            return why;
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        await db.Database.ExecuteSqlAsync(
            $"""
            delete from list_entries e using import_rows r
            where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {made} and e.id = r.entry_id
            """,
            cancellation
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            update list_entries e set name = r.before ->> 'name', name_de = r.before ->> 'nameDe', values = r.before -> 'values'
            from import_rows r where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {changed} and e.id = r.entry_id
            """,
            cancellation
        );
        return null;
    }

    private async Task<bool> WriteAsync(ImportRun run, CancellationToken cancellation)
    {
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        try
        {
            await db.Database.ExecuteSqlAsync(
                $"""
                insert into list_entries (id, list, code, name, name_de, values, retired)
                select entry_id, {run.List}, code, name, name_de, values, false from import_rows
                where run_id = {run.Id} and generation = {run.Generation} and outcome = {made} order by no
                """,
                cancellation
            );
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            return false;
        }
        if (run.Changed > 0)
        {
            var updated = await db.Database.ExecuteSqlAsync(
                $"""
                update list_entries e set name = r.name, name_de = r.name_de, values = r.values
                from import_rows r where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {changed} and e.id = r.entry_id
                  and e.values = r.before -> 'values' and e.name = r.before ->> 'name' and e.name_de is not distinct from r.before ->> 'nameDe'
                """,
                cancellation
            );
            if (updated != run.Changed)
                return false;
        }
        if (!RowChecker.RefersToItself(list))
            return true;
        var after = (await db.ListEntries.AsNoTracking().Where(e => e.List == run.List).ToListAsync(cancellation)).ConvertAll(e => e.Content());
        return !ListConsistency.Between(list, after).Any();
    }

    // What a row refers to may have been deleted since it was checked.
    private async Task<bool> ReferencesStandAsync(ImportRun run, CancellationToken cancellation)
    {
        var wrong = (short)RowOutcome.Changed;
        foreach (var column in list.Columns.Where(c => c.Type is ColumnType.Entry or ColumnType.Entries && c.List != list.Key))
        {
            var missing = await db
                .Database.SqlQuery<int>(
                    $"""
                    select 1 as "Value" from import_rows r cross join lateral jsonb_array_elements_text(
                      case jsonb_typeof(r.values -> {column.Key}) when 'array' then r.values -> {column.Key} when 'string' then jsonb_build_array(r.values ->
                        {column.Key}) else '[]' end) referred(code)
                    where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome <= {wrong}
                      and not exists (select 1 from list_entries e where e.list = {column.List!} and e.code = referred.code)
                    limit 1
                    """
                )
                .AnyAsync(cancellation);
            if (missing)
                return false;
        }
        return true;
    }

    private async Task<string?> WhyNotUndoAsync(ImportRun run, LocalDate today, CancellationToken cancellation)
    {
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        var touched = await db
            .Database.SqlQuery<string>(
                $"""
                select r.code as "Value" from import_rows r left join list_entries e on e.id = r.entry_id
                where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome <= {changed}
                  and (e.id is null or e.values <> r.values or e.name <> r.name or e.name_de is distinct from r.name_de or (e.retired and r.outcome = {made}))
                order by r.no limit {MostNamed + 1}
                """
            )
            .ToListAsync(cancellation);
        if (touched.Count > 0)
            return "changed:" + Name(touched);
        var added = await db
            .Database.SqlQuery<string>(
                $"""
                select code as "Value" from import_rows where run_id = {run.Id} and generation = {run.Generation} and outcome = {made}
                """
            )
            .ToListAsync(cancellation);
        var used = await new ListUsage(db, today).ReferencedAsync(list, cancellation);
        // Entries that came with the same sheet may refer to each other: they go together.
        var ours = added.ToHashSet(StringComparer.Ordinal);
        var depended = added
            .Where(c => used.TryGetValue(c, out var by) && by.Any(b => b is not { } user || !(user.List == run.List && ours.Contains(user.Code))))
            .Take(MostNamed + 1)
            .ToList();
        return depended.Count > 0 ? "used:" + Name(depended) : null;
    }
}
