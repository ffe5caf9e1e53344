using Fid.Acts.Accounts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Absences;

/// <summary>Takes an absence away that has not begun, and ends one that has: from today on they are back.</summary>
public sealed class EndAbsence(FidDb db)
{
    public async Task<ActResult> DoAsync(EndAbsenceRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        var owner = await db.AccountAbsences.Where(a => a.Id == request.Absence).Select(a => (Guid?)a.AccountId).SingleOrDefaultAsync(cancellation);
        // Of an absence of others nobody learns that it is there.
        if (owner is null || !AbsenceInHand.MayChange(actor, owner.Value))
            return Refusal.NotFound;
        if (await AccountInHand.TakeAsync(db, owner.Value, cancellation) is not { } account)
            return Refusal.NotFound;
        if (await db.AccountAbsences.SingleOrDefaultAsync(a => a.Id == request.Absence && a.To >= actor.Today, cancellation) is not { } absence)
            return Refusal.NotFound;
        act.Note(AccountInHand.Entry(actor.Author("tasks"), "absence.ended", account, await AbsenceInHand.WordsAsync(db, absence, cancellation)));
        if (absence.From >= actor.Today)
            db.AccountAbsences.Remove(absence);
        else
            absence.To = actor.Today.PlusDays(-1);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record EndAbsenceRequest(Guid Absence);
