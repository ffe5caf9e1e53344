using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Exchange;

/// <summary>Gives up an import that was not committed, also while it is being read. Its file and rows go.</summary>
public sealed class DropImport(FidDb db)
{
    public async Task<ActResult> DoAsync(DropImportRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await ImportInHand.FindAsync(request.Import, actor, db, cancellation) is null)
            return Refusal.NotFound;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        // The job that reads it sees that it was dropped, stops, and takes it away.
        var isRead =
            await db
                .ImportRuns.Where(r => r.Id == request.Import && (r.State == ImportState.Reading || r.State == ImportState.Checking))
                .ExecuteUpdateAsync(s => s.SetProperty(r => r.State, ImportState.Dropped), cancellation) > 0;
        if (
            !isRead
            && !await TakeAwayAsync(
                db,
                db.ImportRuns.Where(r =>
                    r.Id == request.Import && (r.State == ImportState.Ready || r.State == ImportState.Failed || r.State == ImportState.Dropped)
                ),
                request.Import,
                cancellation
            )
        )
            return ImportInHand.NotNow;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>Takes a run away with its rows, within a transaction; false where it is in another state by now.</summary>
    internal static async Task<bool> TakeAwayAsync(FidDb db, IQueryable<ImportRun> run, Guid id, CancellationToken cancellation)
    {
        if (await run.ExecuteDeleteAsync(cancellation) == 0)
            return false;
        await db.Database.ExecuteSqlAsync($"delete from import_rows where run_id = {id}", cancellation);
        return true;
    }
}

public sealed record DropImportRequest(Guid Import);
