using System.Security.Cryptography;
using System.Text;
using Fid.Acts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>Slows down whoever tries one password after the other, for each account and address by itself, and does the same for
/// accounts that do not exist: by neither answer nor wait can one tell which do.</summary>
internal static class SignInPatience
{
    /// <summary>So many wrong passwords cost nothing but the try.</summary>
    public const int Free = 5;

    private static readonly Duration First = Duration.FromSeconds(2);
    private static readonly Duration Longest = Duration.FromMinutes(15);

    /// <summary>How long to wait before the next try; null where it may be now.</summary>
    public static async Task<Duration?> WaitAsync(FidDb db, string email, string address, Instant now, CancellationToken cancellation)
    {
        var key = Key(email, address);
        return await db.SignInTries.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation) is { } tried && tried.NotBefore > now
            ? tried.NotBefore - now
            : null;
    }

    /// <summary>Notes a wrong password. Counted in the database: tries at several servers, or at once, all count.</summary>
    /// <returns>How many there were in a row.</returns>
    public static async Task<int> FailedAsync(FidDb db, string email, string address, Instant now, CancellationToken cancellation)
    {
        var key = Key(email, address);
        var failures = (
            await db
                .Database.SqlQuery<int>(
                    $"""
                    insert into sign_in_tries (key, failures, not_before) values ({key}, 1, {now})
                    on conflict (key) do update set failures = sign_in_tries.failures + 1 returning failures as "Value"
                    """
                )
                .ToListAsync(cancellation)
        ).Single();
        if (failures < Free)
            return failures;
        var until = now + DoublingPause.After(First, failures - Free, Longest);
        await db.SignInTries.Where(t => t.Key == key).ExecuteUpdateAsync(s => s.SetProperty(t => t.NotBefore, until), cancellation);
        return failures;
    }

    /// <summary>Forgets wrong passwords once the right one came, and those of long ago.</summary>
    public static Task ForgetAsync(FidDb db, string email, string address, Instant now, CancellationToken cancellation)
    {
        var (key, old) = (Key(email, address), now - Duration.FromDays(1));
        return db.SignInTries.Where(t => t.Key == key || t.NotBefore < old).ExecuteDeleteAsync(cancellation);
    }

    private static byte[] Key(string email, string address) => SHA256.HashData(Encoding.UTF8.GetBytes($"{email.Trim().ToUpperInvariant()}\n{address}"));
}
