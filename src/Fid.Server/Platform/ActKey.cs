using System.Security.Claims;
using System.Security.Cryptography;
using System.Text.Json;
using Fid.Core;
using Fid.Data;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>
/// The key under which a browser sends an act, so that it can send it again when it does not know what became of it (the
/// Idempotency-Key header field of the IETF's HTTP API working group). The key is kept in the transaction of the act: either both are
/// there or neither.
/// </summary>
internal static class ActKey
{
    public const string Header = "Idempotency-Key";

    private static readonly Duration Kept = Duration.FromDays(7);

    /// <summary>Takes the key of a request, in the transaction of its act, which must have begun. Whoever sends the same meanwhile
    /// waits here until it has ended.</summary>
    /// <param name="request">What is asked for.</param>
    public static async Task<ActState> TakeAsync(HttpContext http, ClaimsPrincipal user, FidDb db, FirmClock clock, object? request, CancellationToken cancellation)
    {
        if (http.Request.Headers[Header].ToString() is not { Length: > 0 } text) return ActState.New;
        if (!Guid.TryParse(text.Trim('"'), out var key)) return ActState.Unreadable;
        var hash = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(new { http.Request.Method, Path = http.Request.Path.Value, Body = request }, Json));
        var (id, now) = (user.Id(), clock.Now);
        if (await db.Database.ExecuteSqlAsync($"insert into done_acts (user_id, key, request, at) values ({id}, {key}, {hash}, {now}) on conflict do nothing", cancellation) == 1) return ActState.New;
        var before = await db.DoneActs.AsNoTracking().Where(a => a.UserId == id && a.Key == key).Select(a => a.Request).SingleAsync(cancellation);
        return before.AsSpan().SequenceEqual(hash) ? ActState.Done : ActState.OfAnother;
    }

    /// <summary>What to answer where a key cannot be taken; null where it can, or the act is done already.</summary>
    public static ProblemHttpResult? Refuse(this ActState state) => state switch
    {
        ActState.Unreadable => Problems.Invalid(new Problem("/" + Header, "bad-value", "A key is a UUID.")),
        ActState.OfAnother => Problems.Make(StatusCodes.Status422UnprocessableEntity, "key-reused", "Another act was sent under this key. Give each its own."),
        _ => null,
    };

    /// <summary>Forgets keys that nobody sends again.</summary>
    public static Task ForgetAsync(FidDb db, Instant now, CancellationToken cancellation)
    {
        var old = now - Kept;
        return db.DoneActs.Where(a => a.At < old).ExecuteDeleteAsync(cancellation);
    }

    private static readonly JsonSerializerOptions Json = new() { Converters = { new DateConverter() } };

    private sealed class DateConverter : System.Text.Json.Serialization.JsonConverter<LocalDate>
    {
        public override LocalDate Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => throw new NotSupportedException();

        public override void Write(Utf8JsonWriter writer, LocalDate value, JsonSerializerOptions options) => writer.WriteStringValue(value.ToString("uuuu-MM-dd", null));
    }
}

/// <summary>Whether an act was done under a key.</summary>
internal enum ActState
{
    /// <summary>Not yet: it is to be done.</summary>
    New,

    /// <summary>Yes: what there is now is the answer.</summary>
    Done,

    /// <summary>Something else was.</summary>
    OfAnother,

    /// <summary>The key is none.</summary>
    Unreadable,
}
