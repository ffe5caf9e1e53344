using Fid.Acts.Accounts;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Takes all factors from somebody else's account, whose device and codes are lost: they sign in with their password alone, and where a
/// role asks for a factor, add a new one at once.</summary>
public sealed class ClearSecondFactor(FidDb db)
{
    public async Task<ActResult> DoAsync(ClearSecondFactorRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        if (request.Account == actor.AccountId)
            return Refusal.Conflict("own-account", "Ask another administrator: nobody does this for themselves.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        if (account.SecondFactorSince is null)
            return Refusal.Conflict("no-second-factor", "This account has no second factor.");
        OwnSecondFactor.Forget(account);
        db.Passkeys.RemoveRange(await db.Passkeys.Where(p => p.AccountId == account.Id).ToListAsync(cancellation));
        var author = actor.Author("admin");
        await AccountSessions.EndAllAsync(db, account.Id, author.At, cancellation);
        act.Note(AccountInHand.Entry(author, "secondFactor.cleared", account));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record ClearSecondFactorRequest(Guid Account);
