using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Says which column of a sheet is which, and how dates and numbers are written; all rows are checked anew.</summary>
public sealed class MatchColumns(FidDb db, ImportTargets targets)
{
    public async Task<ActResult> DoAsync(MatchColumnsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await ImportInHand.FindAsync(request.Import, actor, db, cancellation) is not { } run)
            return Refusal.NotFound;
        var list = (await targets.OfAsync(run, cancellation)).Definition;
        var columns = request.Columns;
        if (columns.Length != run.Headers.Length)
            return Refusal.Invalid("/columns", "bad-value", "Say for every column what it is, or that it is left out.");
        var used = new HashSet<string>();
        for (var i = 0; i < columns.Length; i++)
        {
            if (columns[i].Length == 0)
                continue;
            if (!list.Takes(columns[i]))
                return Refusal.Invalid($"/columns/{i}", "unknown-column", "The list has no such column.");
            if (!used.Add(columns[i]))
                return Refusal.Invalid($"/columns/{i}", "duplicate-column", "Another column is matched to this already. Leave one of them out.");
        }
        if (request.HoldsFrom is { } from && (list.HasNames || !ValueCheck.IsSensible(from)))
            return Refusal.Invalid("/holdsFrom", "bad-date", "Enter a date from 1900 to 2199.");
        var by = run
            .Columns.Zip(columns, run.MatchedBy)
            .Select(t =>
                t.First == t.Second ? t.Third
                : t.Second.Length > 0 ? nameof(MatchedBy.Hand)
                : nameof(MatchedBy.Nothing)
            )
            .ToArray();
        var dates = request.Dates?.ToString();
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (
            !await ImportInHand.MoveAsync(
                db,
                request.Import,
                ImportState.Ready,
                actor.Clock.Now,
                s =>
                    s.SetProperty(r => r.HoldsFrom, request.HoldsFrom)
                        .SetProperty(r => r.Columns, columns)
                        .SetProperty(r => r.MatchedBy, by)
                        .SetProperty(r => r.Dates, dates)
                        .SetProperty(r => r.AskDates, false)
                        .SetProperty(r => r.Decimal, request.Decimal == "," ? "," : ".")
                        .SetProperty(r => r.EmptyClears, request.EmptyClears)
                        .SetProperty(r => r.Failure, (string?)null)
                        .SetProperty(r => r.Done, 0)
                        .SetProperty(r => r.State, ImportState.Checking),
                cancellation
            )
        )
            return ImportInHand.NotNow;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Columns">For each column of the sheet the key of the list's column; empty to leave it out.</param>
/// <param name="Decimal">The decimal mark: "." or ",".</param>
/// <param name="EmptyClears">Whether an empty cell empties what is there.</param>
/// <param name="HoldsFrom">For people, the day from which what the rows say holds; null where they correct what is there.</param>
public sealed record MatchColumnsRequest(Guid Import, string[] Columns, DateOrder? Dates, string Decimal, bool EmptyClears, LocalDate? HoldsFrom);
