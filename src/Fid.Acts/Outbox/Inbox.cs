using System.Security.Cryptography;
using System.Text.Json;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Outbox;

/// <summary>Keeps what others have said, so that the same said again does nothing.</summary>
internal static class Inbox
{
    /// <summary>Those of some messages of a source that say something new. What they say is kept with the act that takes it in, which
    /// lets nobody else take in from that source meanwhile.</summary>
    /// <param name="messages">Each with the source's own id.</param>
    public static async Task<IReadOnlyList<T>> TakeNewAsync<T>(
        FidDb db,
        string source,
        IReadOnlyList<(string Id, T Message)> messages,
        JsonSerializerOptions json,
        Instant at,
        CancellationToken cancellation
    )
    {
        var ids = messages.Select(m => m.Id).ToArray();
        var known = await db.Received.Where(r => r.Source == source && ids.Contains(r.ExternalId)).ToDictionaryAsync(r => r.ExternalId, cancellation);
        var fresh = new List<T>();
        foreach (var (id, message) in messages)
        {
            var content = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(message, json));
            if (known.TryGetValue(id, out var before))
            {
                if (before.Content.AsSpan().SequenceEqual(content))
                    continue;
                (before.Content, before.ChangedAt) = (content, at);
            }
            else
            {
                known[id] = new ReceivedMessage
                {
                    Source = source,
                    ExternalId = id,
                    Content = content,
                    FirstAt = at,
                    ChangedAt = at,
                };
                db.Received.Add(known[id]);
            }
            fresh.Add(message);
        }
        return fresh;
    }
}
