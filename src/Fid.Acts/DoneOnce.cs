using System.Security.Cryptography;
using System.Text.Json;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Fid.Acts;

/// <summary>
/// Keeps the keys under which acts are done once: whoever does not know what became of a request sends it again under its key. The key
/// is kept in the transaction of the act: either both are there or neither.
/// </summary>
public static class DoneOnce
{
    private static readonly Duration Kept = Duration.FromDays(7);
    private static readonly JsonSerializerOptions Json = new JsonSerializerOptions().ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    /// <summary>Takes the actor's key, in the transaction of the act, which must have begun. The user who sends the same meanwhile waits
    /// here until it has ended.</summary>
    /// <param name="request">What is asked for.</param>
    internal static async Task<KeyState> TakeAsync<T>(FidDb db, Actor actor, T request, CancellationToken cancellation)
    {
        if (actor.Key is not { } key)
            return KeyState.New;
        var hash = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(new { Act = typeof(T).Name, Request = request }, Json));
        var (id, now) = (actor.AccountId ?? Guid.Empty, actor.Clock.Now);
        if (
            await Locks.InTurnAsync(db, () =>
                db.Database.ExecuteSqlAsync(
                    $"insert into done_acts (user_id, key, request, at) values ({id}, {key}, {hash}, {now}) on conflict do nothing",
                    cancellation
                )
            ) == 1
        )
            return KeyState.New;
        var before = await db.DoneActs.AsNoTracking().Where(a => a.UserId == id && a.Key == key).Select(a => a.Request).SingleAsync(cancellation);
        return before.AsSpan().SequenceEqual(hash) ? KeyState.Done : KeyState.OfAnother;
    }

    /// <summary>Forgets keys that nobody sends again.</summary>
    public static Task<int> ForgetAsync(FidDb db, Instant now, CancellationToken cancellation)
    {
        var old = now - Kept;
        return db.DoneActs.Where(a => a.At < old).ExecuteDeleteAsync(cancellation);
    }
}

/// <summary>Whether an act was done under a key.</summary>
internal enum KeyState
{
    /// <summary>Not yet: it is to be done.</summary>
    New,

    /// <summary>Yes: what there is now is the answer.</summary>
    Done,

    /// <summary>Something else was.</summary>
    OfAnother,
}
