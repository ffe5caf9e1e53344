using Fid.Data;
using Fid.Data.Exchange;

namespace Fid.Acts.Exchange;

/// <summary>Asks for all rows of a checked sheet, or only the good ones, to be put in: that follows in the background.</summary>
public sealed class AskForImport(FidDb db)
{
    public async Task<ActResult> DoAsync(AskForImportRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await ImportInHand.FindAsync(request.Import, actor, db, cancellation) is not { } run)
            return Refusal.NotFound;
        if (run.State == ImportState.Ready)
        {
            if (run.AskDates)
                return Refusal.Conflict("dates-ambiguous", "Say first whether the day or the month comes first in the dates.");
            if (run.Wrong > 0 && !request.OnlyGood)
                return Refusal.Conflict("rows-wrong", $"{run.Wrong} rows are not right. Mend them, or take only the good ones.");
            if (run.New + run.Changed == 0)
                return Refusal.Conflict("nothing-to-do", "No row would change anything.");
        }
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (
            !await ImportInHand.MoveAsync(
                db,
                run.Id,
                ImportState.Ready,
                actor.Clock.Now,
                s =>
                    s.SetProperty(r => r.OnlyGood, request.OnlyGood)
                        .SetProperty(r => r.Failure, (string?)null)
                        .SetProperty(r => r.Done, 0)
                        .SetProperty(r => r.State, ImportState.Committing),
                cancellation
            )
        )
            return ImportInHand.NotNow;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="OnlyGood">Whether rows that are not right are left out.</param>
public sealed record AskForImportRequest(Guid Import, bool OnlyGood);
