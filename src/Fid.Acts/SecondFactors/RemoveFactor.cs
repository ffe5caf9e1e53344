using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Takes a factor away from one's own account: the authenticator, or a passkey.</summary>
public sealed class RemoveFactor(FidDb db)
{
    public async Task<ActResult> DoAsync(RemoveFactorRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { } own)
            return Refusal.NotFound;
        var passkeys = await db.Passkeys.Where(p => p.AccountId == own.Account.Id).ToListAsync(cancellation);
        if (request.Passkey is { } id)
        {
            if (passkeys.Find(p => p.Id.AsSpan().SequenceEqual(id)) is not { } passkey)
                return Refusal.NotFound;
            db.Remove(passkey);
            passkeys.Remove(passkey);
        }
        else if (own.Account.AuthenticatorKey is null)
            return Refusal.NotFound;
        else
            own.Account.AuthenticatorKey = null;
        if (own.Account.AuthenticatorKey is null && passkeys.Count == 0)
            OwnSecondFactor.Forget(own.Account);
        act.Note(own.Entry(actor, "secondFactor.removed"));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Session">The session in which it is asked.</param>
/// <param name="Passkey">The id of the passkey; null for the authenticator.</param>
public sealed record RemoveFactorRequest(Guid Session, byte[]? Passkey);
