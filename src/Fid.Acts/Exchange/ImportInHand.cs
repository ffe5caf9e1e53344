using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Work;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Query;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Which imports somebody may go on with, and taking one from state to state.</summary>
public static class ImportInHand
{
    internal static Refusal NotNow { get; } = Refusal.Conflict("not-now", "This cannot be done with the import as it is now. Look at where it is.");

    /// <summary>An import the actor may look at: one of people holds what only the user who began it is known to be allowed to see.</summary>
    public static async Task<ImportRun?> FindAsync(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Sheet))
            return null;
        var by = actor.AccountId;
        return await db
            .ImportRuns.AsNoTracking()
            .FirstOrDefaultAsync(r => r.Id == id && ((r.List != PeopleTarget.Key && !r.List.StartsWith(RowsTarget.Prefix)) || r.ById == by), cancellation);
    }

    /// <summary>Takes a run from one state on, and asks for the work that follows; false where it is in another: two who press at once
    /// do it once. To be committed with the act.</summary>
    internal static async Task<bool> MoveAsync(
        FidDb db,
        Guid id,
        ImportState from,
        Instant now,
        Action<UpdateSettersBuilder<ImportRun>> set,
        CancellationToken cancellation
    )
    {
        if (await db.ImportRuns.Where(r => r.Id == id && r.State == from).ExecuteUpdateAsync(set, cancellation) != 1)
            return false;
        GoOn(db, id, now);
        return true;
    }

    /// <summary>Asks for an import to be gone on with in the background.</summary>
    internal static void GoOn(FidDb db, Guid id, Instant now) => db.Jobs.Add(Job.Once(RunImport.Kind, id, now));
}
