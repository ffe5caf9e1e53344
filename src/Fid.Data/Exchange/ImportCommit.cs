using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Data.Exchange;

/// <summary>Puts the rows of a checked import in, all in one transaction, and takes them out again.</summary>
public sealed class ImportCommit(FidDb db, NpgsqlDataSource source, ImportTargets targets)
{
    /// <summary>Commits the good rows of a run. Where what they were checked against has changed since nothing is committed, and the
    /// run is to be checked anew.</summary>
    public async Task CommitAsync(ImportRun run, Author author, LocalDate today, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var target = await targets.OfAsync(run, cancellation);
        if (!await target.ApplyAsync(run, author, today, done => ImportCheck.TellAsync(source, run, done, cancellation), cancellation))
        {
            await transaction.RollbackAsync(cancellation);
            db.ChangeTracker.Clear();
            run.State = ImportState.Checking;
            run.Failure = ImportTarget.Meanwhile;
            await SaveAsync(run, cancellation);
            return;
        }
        var change = author.Change("import.committed", run.Id, run.List);
        db.Changes.Add(change);
        var key = ImportCheck.MemoryKey(run);
        await db.Database.ExecuteSqlAsync(
            $"insert into import_memory (key, columns) values ({key}, {run.Columns}) on conflict (key) do update set columns = excluded.columns", cancellation);
        (run.State, run.ChangeId, run.CommittedAt, run.Failure, run.Done) = (ImportState.Committed, change.Id, author.At, null, run.Rows);
        await SaveAsync(run, cancellation);
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Takes a committed run out again: what it made goes, what it changed is as before. Refused, with the reason in
    /// <see cref="ImportRun.Failure"/>, where something uses it or changed it since.</summary>
    public async Task UndoAsync(ImportRun run, Author author, LocalDate today, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var why = await (await targets.OfAsync(run, cancellation)).UndoAsync(run, author, today, cancellation);
        if (why is null) db.Changes.Add(author.Change("import.undone", run.Id, run.List));
        else
        {
            await transaction.RollbackAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        (run.State, run.Failure) = why is null ? (ImportState.Undone, (string?)null) : (ImportState.Committed, why);
        await SaveAsync(run, cancellation);
        if (why is null) await transaction.CommitAsync(cancellation);
    }

    private async Task SaveAsync(ImportRun run, CancellationToken cancellation)
    {
        db.Update(run);
        await db.SaveChangesAsync(cancellation);
    }
}
