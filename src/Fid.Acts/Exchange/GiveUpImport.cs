using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Exchange;

/// <summary>Ends work on an import that could not be done, or was dropped while it was.</summary>
public sealed class GiveUpImport(FidDb db)
{
    /// <summary>Says why, only from the state in which the work was taken up: what somebody dropped meanwhile stays dropped.</summary>
    public Task FailAsync(Guid id, ImportState from, ImportState state, string why)
    {
        db.ChangeTracker.Clear();
        return db
            .ImportRuns.Where(r => r.Id == id && r.State == from)
            .ExecuteUpdateAsync(s => s.SetProperty(r => r.State, state).SetProperty(r => r.Failure, why), CancellationToken.None);
    }

    /// <summary>What was dropped while it was read goes with its file and its rows; what could not be read keeps only that it could not.</summary>
    public async Task TakeAwayAsync(Guid id)
    {
        if (await db.ImportRuns.AnyAsync(r => r.Id == id && r.State == ImportState.Failed))
            await db.Database.ExecuteSqlAsync($"delete from import_pieces where run_id = {id}");
        await using var transaction = await db.Database.BeginTransactionAsync();
        if (await DropImport.TakeAwayAsync(db, db.ImportRuns.Where(r => r.Id == id && r.State == ImportState.Dropped), id, default))
            await transaction.CommitAsync();
    }
}
