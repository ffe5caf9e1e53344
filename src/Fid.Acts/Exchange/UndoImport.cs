using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;

namespace Fid.Acts.Exchange;

/// <summary>Takes a committed import out again: what it made goes, what it changed is as before. Refused, with the reason in
/// <see cref="ImportRun.Failure"/>, where something uses it or changed it since.</summary>
public sealed class UndoImport(FidDb db, ImportTargets targets)
{
    /// <param name="actor">The user who began the import, with the rights they have now.</param>
    public async Task DoAsync(ImportRun run, Actor actor, CancellationToken cancellation)
    {
        string? why;
        await using (var act = await ActScope.BeginAsync(db, actor, run.Id, cancellation))
        {
            var target = actor.May(Actions.Edit, Things.Sheet) ? await targets.FindAsync(run.List, actor, cancellation) : null;
            why = target is null ? "fault" : await target.UndoAsync(run, actor, cancellation);
            if (why is null)
            {
                act.Note(actor.Author("exchange").Change("import.undone", run.Id, run.List));
                (run.State, run.Failure) = (ImportState.Undone, null);
                db.Update(run);
                await act.CommitAsync(cancellation);
                return;
            }
        }
        db.ChangeTracker.Clear();
        (run.State, run.Failure) = (ImportState.Committed, why);
        db.Update(run);
        await db.SaveChangesAsync(cancellation);
    }
}
