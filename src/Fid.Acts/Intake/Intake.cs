using Fid.Acts.Outbox;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Intake;

/// <summary>Takes in what the feed says. Saying the same twice does nothing the second time.</summary>
public sealed class Intake(FidDb db)
{
    /// <summary>Puts candidates in the tray and brings those there up to date. Candidates that the feed no longer names stay.</summary>
    /// <returns>How many are new, and how many changed.</returns>
    public async Task<(int Arrived, int Changed)> ReceiveAsync(IReadOnlyList<FeedCandidate> candidates, Instant at, CancellationToken cancellation)
    {
        await Locks.FeedAsync(db, cancellation);
        candidates = await Inbox.TakeNewAsync(db, OutboxMessage.Recruiting, [.. candidates.Select(c => (c.Id, c))], FeedCandidate.Json, at, cancellation);
        var named = candidates.Select(c => c.Id).ToArray();
        var there = await db.IntakeCandidates.Where(c => named.Contains(c.SourceId)).ToDictionaryAsync(c => c.SourceId, cancellation);
        var (arrived, changed) = (0, 0);
        foreach (var candidate in candidates)
        {
            if (!there.TryGetValue(candidate.Id, out var known))
            {
                db.IntakeCandidates.Add(
                    new IntakeCandidate
                    {
                        SourceId = candidate.Id,
                        Now = candidate,
                        ArrivedAt = at,
                        ChangedAt = at,
                    }
                );
                arrived++;
            }
            else if (known.Now != candidate)
            {
                (known.Now, known.ChangedAt) = (candidate, at);
                changed++;
            }
        }
        return (arrived, changed);
    }

    /// <summary>What the feed has come to say otherwise since a hire was opened, field by field: what it said then, and now.</summary>
    public static IReadOnlyDictionary<string, (string? Before, string? Now)> Proposals(IntakeCandidate candidate)
    {
        if (candidate is not { State: IntakeState.Taken, Settled: { } settled })
            return new Dictionary<string, (string?, string?)>();
        var now = candidate.Now.Fields;
        return settled.Fields.Where(f => f.Value != now[f.Key] && now[f.Key] is not null).ToDictionary(f => f.Key, f => (f.Value, now[f.Key]));
    }
}
