using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Acts.Exchange;

/// <summary>Puts the good rows of a checked import in, all in one transaction. Where what they were checked against has changed since
/// nothing is put in, and the import is to be checked anew.</summary>
public sealed class CommitImport(FidDb db, NpgsqlDataSource source, ImportTargets targets)
{
    /// <param name="actor">The user who began the import, with the rights they have now.</param>
    public async Task DoAsync(ImportRun run, Actor actor, CancellationToken cancellation)
    {
        await using (var act = await ActScope.BeginAsync(db, actor, run.Id, cancellation))
        {
            var target = await targets.FindAsync(run.List, actor, cancellation);
            if (
                actor.May(Actions.Edit, Things.Sheet)
                && target is not null
                && await target.ApplyAsync(run, actor, done => ImportCheck.TellAsync(source, run, done, cancellation), cancellation)
            )
            {
                var change = act.Note(actor.Author("exchange").Change("import.committed", run.Id, run.List));
                var key = ImportCheck.MemoryKey(run);
                await db.Database.ExecuteSqlAsync(
                    $"insert into import_memory (key, columns) values ({key}, {run.Columns}) on conflict (key) do update set columns = excluded.columns",
                    cancellation
                );
                (run.State, run.ChangeId, run.CommittedAt, run.Failure, run.Done) = (ImportState.Committed, change.Id, change.At, null, run.Rows);
                db.Update(run);
                await act.CommitAsync(cancellation);
                return;
            }
        }
        db.ChangeTracker.Clear();
        (run.State, run.Failure) = (ImportState.Checking, ImportTarget.Meanwhile);
        db.Update(run);
        await db.SaveChangesAsync(cancellation);
    }
}
