using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Where the user of an account is signed in.</summary>
public static class AccountSessions
{
    /// <summary>Ends all sessions that go on.</summary>
    /// <returns>How many there were.</returns>
    public static Task<int> EndAllAsync(FidDb db, Guid account, Instant now, CancellationToken cancellation) =>
        db
            .UserSessions.Where(s => s.UserId == account && s.EndedAt == null && s.EndsAt > now)
            .ExecuteUpdateAsync(s => s.SetProperty(x => x.EndedAt, now), cancellation);
}
