using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Makes and finds the links by which users set their passwords. What a link holds is known to whoever was given it alone.</summary>
public static class AccountLinks
{
    /// <summary>How long a link is good for.</summary>
    public static readonly Duration Lifetime = Duration.FromDays(7);

    /// <summary>Makes an account's link. Any it had before opens nothing from then on.</summary>
    internal static async Task<GivenLink> MakeAsync(FidDb db, FidUser account, Instant now, CancellationToken cancellation)
    {
        var token = SecretToken.Make();
        await db.AccountLinks.Where(l => l.UserId == account.Id).ExecuteDeleteAsync(cancellation);
        var link = new AccountLink
        {
            UserId = account.Id,
            Hash = SecretToken.Hash(token),
            MadeAt = now,
            EndsAt = now + Lifetime,
        };
        db.AccountLinks.Add(link);
        return new GivenLink(account.Id, token, link.EndsAt);
    }

    /// <summary>The account that a link is for; null where it was used, has run out, was replaced by another, or never was.</summary>
    public static async Task<FidUser?> FindAsync(FidDb db, string token, Instant now, CancellationToken cancellation)
    {
        var hash = SecretToken.Hash(token.Trim());
        return await db
            .AccountLinks.Where(l => l.Hash == hash && l.EndsAt > now)
            .Join(db.Users, l => l.UserId, u => u.Id, (_, user) => user)
            .SingleOrDefaultAsync(u => u.DisabledAt == null && u.Email != null, cancellation);
    }
}

/// <summary>A link to give to the user of an account. It is shown this once.</summary>
/// <param name="Token">What the link holds.</param>
/// <param name="EndsAt">From when on it opens nothing.</param>
public sealed record GivenLink(Guid Account, string Token, Instant EndsAt);
