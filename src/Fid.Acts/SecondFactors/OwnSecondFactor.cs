using Fid.Acts.Accounts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>A user's own account and session, for what they do about their second factor. One at a time changes accounts.</summary>
internal sealed record OwnSecondFactor(FidUser Account, UserSession Session)
{
    public static async Task<OwnSecondFactor?> TakeAsync(FidDb db, Actor actor, Guid session, CancellationToken cancellation)
    {
        await Locks.AccountsAsync(db, cancellation);
        var account = await db.Users.SingleOrDefaultAsync(u => u.Id == actor.Account && u.DisabledAt == null, cancellation);
        var own = await db.UserSessions.SingleOrDefaultAsync(s => s.Id == session && s.UserId == actor.Account && s.EndedAt == null, cancellation);
        return account is null || own is null ? null : new OwnSecondFactor(account, own);
    }

    /// <summary>Takes a factor as added and proved: the first one gives recovery codes, which are answered once.</summary>
    public string[] Added(Actor actor)
    {
        (Session.Begun, Session.ProvedAt) = (null, actor.Clock.Now);
        if (Account.SecondFactorSince is not null)
            return [];
        Account.SecondFactorSince = actor.Clock.Now;
        return FreshCodes();
    }

    /// <summary>New recovery codes in place of those there were.</summary>
    public string[] FreshCodes()
    {
        var codes = RecoveryCodes.Make();
        Account.RecoveryCodes = [.. codes.Select(RecoveryCodes.HashOf)];
        return codes;
    }

    /// <summary>Where no factor is left, the recovery codes go with the last.</summary>
    public static void Forget(FidUser account) => (account.SecondFactorSince, account.AuthenticatorKey, account.RecoveryCodes) = (null, null, []);

    /// <summary>An entry in the trail about it.</summary>
    public Change Entry(Actor actor, string action) => AccountInHand.Entry(actor.Author("session"), action, Account);
}
