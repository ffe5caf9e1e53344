using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Outbox;

/// <summary>
/// Gives out what other systems are to be told, one message at a time, and keeps what came of it. Who takes one has it for a while: one
/// that dies in the middle leaves it to be told again, and the other system knows by its id that it has heard it already.
/// </summary>
public sealed class OutboxDelivery(FidDb db, FirmClock clock)
{
    private static readonly Duration LongestPause = Duration.FromHours(1);

    /// <summary>Takes the message that has waited longest; null where none is due.</summary>
    /// <param name="mine">How long nobody else takes it.</param>
    public async Task<OutboxMessage?> TakeAsync(string channel, Duration mine, CancellationToken cancellation)
    {
        var now = clock.Now;
        var taken = await db
            .Database.SqlQuery<Guid>(
                $"""
                update outbox set tries = tries + 1, next_try = {now + mine}
                where id = (
                  select id from outbox where sent_at is null and channel = {channel} and next_try <= {now} order by at limit 1
                  for update skip locked)
                returning id
                """
            )
            .ToListAsync(cancellation);
        return taken is [var id] ? await db.Outbox.AsNoTracking().SingleAsync(n => n.Id == id, cancellation) : null;
    }

    /// <summary>Keeps what came of telling it.</summary>
    /// <param name="trouble">What went wrong; null where it was heard.</param>
    /// <param name="pause">The pause after the first try; each further one is twice as long.</param>
    public Task SettleAsync(OutboxMessage message, string? trouble, Duration pause, CancellationToken cancellation)
    {
        var now = clock.Now;
        Instant? sent = trouble is null ? now : null;
        var next = now + DoublingPause.After(pause, message.Tries, LongestPause);
        return db
            .Outbox.Where(m => m.Id == message.Id && m.SentAt == null)
            .ExecuteUpdateAsync(s => s.SetProperty(m => m.SentAt, sent).SetProperty(m => m.Trouble, trouble).SetProperty(m => m.NextTry, next), cancellation);
    }
}
