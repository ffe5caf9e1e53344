using Fid.Core.Lists;
using Fid.Data.Changes;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Data.Exchange;

/// <summary>Puts the rows of a checked import into its list, all in one transaction, and takes them out again.</summary>
public sealed class ImportCommit(FidDb db)
{
    private const int MostNamed = 5;

    /// <summary>Commits the good rows of a run. Where the list was changed since the rows were checked nothing is committed, and the
    /// run is to be checked anew.</summary>
    public async Task CommitAsync(ImportRun run, Author author, CancellationToken cancellation)
    {
        var list = ShippedLists.Get(run.List);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await new ListWriter(db).LockAsync(run.List, cancellation);
        if (!await ReferencesStandAsync(run, list, cancellation) || !await ApplyAsync(run, list, cancellation))
        {
            await transaction.RollbackAsync(cancellation);
            run.State = ImportState.Checking;
            run.Failure = "meanwhile";
            await SaveAsync(run, cancellation);
            return;
        }
        var change = author.Change("import.committed", run.Id, run.List);
        db.Changes.Add(change);
        var key = ImportCheck.MemoryKey(run);
        await db.Database.ExecuteSqlAsync(
            $"insert into import_memory (key, columns) values ({key}, {run.Columns}) on conflict (key) do update set columns = excluded.columns", cancellation);
        await ImportFiles.ForgetAsync(db, run.Id, cancellation);
        (run.State, run.ChangeId, run.CommittedAt, run.Failure, run.Done) = (ImportState.Committed, change.Id, author.At, null, run.Rows);
        await SaveAsync(run, cancellation);
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Takes a committed run out of its list again: new entries go, changed ones are as before. Refused, with the reason
    /// in <see cref="ImportRun.Failure"/>, where something uses one of them or changed it since.</summary>
    public async Task UndoAsync(ImportRun run, Author author, LocalDate today, CancellationToken cancellation)
    {
        var list = ShippedLists.Get(run.List);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await new ListWriter(db).LockForDeletingAsync(run.List, cancellation);
        if (await WhyNotUndoAsync(run, list, today, cancellation) is { } why)
        {
            (run.State, run.Failure) = (ImportState.Committed, why);
            await SaveAsync(run, cancellation);
            await transaction.CommitAsync(cancellation);
            return;
        }
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        await db.Database.ExecuteSqlAsync($"""
            delete from list_entries e using import_rows r
            where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {made} and e.id = r.entry_id
            """, cancellation);
        await db.Database.ExecuteSqlAsync($"""
            update list_entries e set name = r.before ->> 'name', name_de = r.before ->> 'nameDe', values = r.before -> 'values'
            from import_rows r where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {changed} and e.id = r.entry_id
            """, cancellation);
        db.Changes.Add(author.Change("import.undone", run.Id, run.List));
        (run.State, run.Failure) = (ImportState.Undone, null);
        await SaveAsync(run, cancellation);
        await transaction.CommitAsync(cancellation);
    }

    private async Task<bool> ApplyAsync(ImportRun run, ListDefinition list, CancellationToken cancellation)
    {
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        try
        {
            await db.Database.ExecuteSqlAsync($"""
                insert into list_entries (id, list, code, name, name_de, values, retired)
                select entry_id, {run.List}, code, name, name_de, values, false from import_rows
                where run_id = {run.Id} and generation = {run.Generation} and outcome = {made} order by no
                """, cancellation);
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            return false;
        }
        if (run.Changed > 0)
        {
            var updated = await db.Database.ExecuteSqlAsync($"""
                update list_entries e set name = r.name, name_de = r.name_de, values = r.values
                from import_rows r where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome = {changed} and e.id = r.entry_id
                  and e.values = r.before -> 'values' and e.name = r.before ->> 'name' and e.name_de is not distinct from r.before ->> 'nameDe'
                """, cancellation);
            if (updated != run.Changed) return false;
        }
        if (!RowChecker.RefersToItself(list)) return true;
        var after = (await db.ListEntries.AsNoTracking().Where(e => e.List == run.List).ToListAsync(cancellation)).ConvertAll(e => e.Content());
        return !TogetherCheck.Between(list, after).Any();
    }

    // What a row refers to may have been deleted since it was checked.
    private async Task<bool> ReferencesStandAsync(ImportRun run, ListDefinition list, CancellationToken cancellation)
    {
        var wrong = (short)RowOutcome.Changed;
        foreach (var column in list.Columns.Where(c => c.Type is ColumnType.Entry or ColumnType.Entries && c.List != list.Key))
        {
            var missing = await db.Database.SqlQuery<int>($"""
                select 1 as "Value" from import_rows r cross join lateral jsonb_array_elements_text(
                  case jsonb_typeof(r.values -> {column.Key}) when 'array' then r.values -> {column.Key} when 'string' then jsonb_build_array(r.values -> {column.Key}) else '[]' end) referred(code)
                where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome <= {wrong}
                  and not exists (select 1 from list_entries e where e.list = {column.List!} and e.code = referred.code)
                limit 1
                """).AnyAsync(cancellation);
            if (missing) return false;
        }
        return true;
    }

    private async Task<string?> WhyNotUndoAsync(ImportRun run, ListDefinition list, LocalDate today, CancellationToken cancellation)
    {
        var (made, changed) = ((short)RowOutcome.New, (short)RowOutcome.Changed);
        var touched = await db.Database.SqlQuery<string>($"""
            select r.code as "Value" from import_rows r left join list_entries e on e.id = r.entry_id
            where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome <= {changed}
              and (e.id is null or e.values <> r.values or e.name <> r.name or e.name_de is distinct from r.name_de or (e.retired and r.outcome = {made}))
            order by r.no limit {MostNamed + 1}
            """).ToListAsync(cancellation);
        if (touched.Count > 0) return "changed:" + Name(touched);
        var added = await db.Database.SqlQuery<string>($"""
            select code as "Value" from import_rows where run_id = {run.Id} and generation = {run.Generation} and outcome = {made}
            """).ToListAsync(cancellation);
        var used = await new ListUsage(db, today).ReferencedAsync(list, cancellation);
        // Entries that came with the same sheet may refer to each other: they go together.
        var ours = added.ToHashSet(StringComparer.Ordinal);
        var depended = added.Where(c => used.TryGetValue(c, out var by) && by.Any(b => b is not { } user || !(user.List == run.List && ours.Contains(user.Code)))).Take(MostNamed + 1).ToList();
        return depended.Count > 0 ? "used:" + Name(depended) : null;
    }

    private static string Name(List<string> codes) => string.Join(", ", codes.Take(MostNamed)) + (codes.Count > MostNamed ? ", …" : "");

    private async Task SaveAsync(ImportRun run, CancellationToken cancellation)
    {
        db.Update(run);
        await db.SaveChangesAsync(cancellation);
    }
}
