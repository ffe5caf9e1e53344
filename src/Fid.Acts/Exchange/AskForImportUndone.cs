using Fid.Data;
using Fid.Data.Exchange;

namespace Fid.Acts.Exchange;

/// <summary>Asks for a committed import to be taken out again: that follows in the background.</summary>
public sealed class AskForImportUndone(FidDb db)
{
    public async Task<ActResult> DoAsync(AskForImportUndoneRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await ImportInHand.FindAsync(request.Import, actor, db, cancellation) is not { } run)
            return Refusal.NotFound;
        if (run.SealedKey is null)
            return Refusal.Conflict("too-late", $"An import can be undone for {ImportRetention.Kept.Days} days. Change by hand what is not right.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (
            !await ImportInHand.MoveAsync(
                db,
                run.Id,
                ImportState.Committed,
                actor.Clock.Now,
                s => s.SetProperty(r => r.Failure, (string?)null).SetProperty(r => r.State, ImportState.Undoing),
                cancellation
            )
        )
            return ImportInHand.NotNow;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record AskForImportUndoneRequest(Guid Import);
