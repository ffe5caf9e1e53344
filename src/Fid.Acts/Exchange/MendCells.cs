using Fid.Data;
using Fid.Data.Exchange;

namespace Fid.Acts.Exchange;

/// <summary>Changes a cell of a sheet, or all cells of its column that say the same; every row is then checked anew.</summary>
public sealed class MendCells(FidDb db, SheetSeals seals)
{
    private const int LongestCell = 20_000;

    public async Task<ActResult> DoAsync(MendCellsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await ImportInHand.FindAsync(request.Import, actor, db, cancellation) is not { } run)
            return Refusal.NotFound;
        if (request.Column < 0 || request.Column >= run.Headers.Length)
            return Refusal.Invalid("/column", "bad-value", "There is no such column.");
        if (request.Text.Length > LongestCell || request.Text.Contains('\0', StringComparison.Ordinal))
            return Refusal.Invalid("/text", "too-long", $"Enter at most {LongestCell} characters.");
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
                s => s.SetProperty(r => r.State, ImportState.Checking).SetProperty(r => r.Done, 0).SetProperty(r => r.Failure, (string?)null),
                cancellation
            )
        )
            return ImportInHand.NotNow;
        using var seal = seals.Of(run);
        if (await ImportRows.MendAsync(db, seal, run, request.Row, request.Column, request.Text, request.AllLike, cancellation) == 0)
            return Refusal.NotFound;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Row">The row's number.</param>
/// <param name="Column">The place of the column, from 0.</param>
/// <param name="AllLike">Whether every row whose cell in this column says the same is changed too.</param>
public sealed record MendCellsRequest(Guid Import, int Row, int Column, string Text, bool AllLike);
