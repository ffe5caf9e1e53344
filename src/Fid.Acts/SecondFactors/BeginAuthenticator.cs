using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Makes a key for an authenticator application; it counts once a code of it was entered.</summary>
public sealed class BeginAuthenticator(FidDb db, Authenticator authenticator)
{
    /// <returns>The key, as it is typed into an authenticator, and the address by which it takes it.</returns>
    public async Task<ActResult<BegunAuthenticator>> DoAsync(SessionRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { } own)
            return Refusal.NotFound;
        var key = Authenticator.NewKey();
        own.Session.Begun = authenticator.Seal(own.Account.Id, key);
        var firm = await db.Firms.Select(f => f.Name).SingleAsync(cancellation);
        await act.CommitAsync(cancellation);
        return new BegunAuthenticator(key, Authenticator.AddressOf(key, firm, own.Account.Email ?? own.Account.DisplayName));
    }
}

/// <param name="Session">The session in which it is asked.</param>
public sealed record SessionRequest(Guid Session);

public sealed record BegunAuthenticator(string Key, string Address);
