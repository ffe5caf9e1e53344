using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Hears from PostgreSQL what changed, through whichever server instance, and tells the browsers that listen here.</summary>
public sealed class LiveChanges(NpgsqlDataSource source, ILogger<LiveChanges> log) : BackgroundService
{
    private const string Channel = "fid_live";
    private const int MostWaiting = 500;
    private const int MostTogether = 100;
    private static readonly TimeSpan Heartbeat = TimeSpan.FromSeconds(20);
    private readonly ConcurrentDictionary<Guid, Channel<string>> _listeners = new();

    /// <summary>What changes from now on, as "hire:ID" or "record:ID", as far as a listener may read it; "all" when something may
    /// have been missed.</summary>
    public async IAsyncEnumerable<SseItem<string>> ListenAsync(ILiveListener listener, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var id = Guid.NewGuid();
        // A browser that does not keep up loses the oldest, and is told that it missed something when it reads on.
        var missed = 0;
        var channel = System.Threading.Channels.Channel.CreateBounded<string>(
            new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest },
            _ => Volatile.Write(ref missed, 1)
        );
        _listeners[id] = channel;
        try
        {
            yield return new SseItem<string>("all", "change");
            while (true)
            {
                var (changes, ended) = (new List<string>(), false);
                using (var pause = CancellationTokenSource.CreateLinkedTokenSource(cancellation))
                {
                    pause.CancelAfter(Heartbeat);
                    try
                    {
                        changes.Add(await channel.Reader.ReadAsync(pause.Token));
                        // What came meanwhile is asked about in one go.
                        while (changes.Count < MostTogether && channel.Reader.TryRead(out var more))
                            changes.Add(more);
                        if (Interlocked.Exchange(ref missed, 0) == 1)
                            changes = ["all"];
                    }
                    catch (OperationCanceledException)
                    {
                        // Nothing for a while: a word now and then keeps proxies from closing the line. Or the browser left, or the server stops.
                        ended = cancellation.IsCancellationRequested;
                    }
                }
                if (ended)
                    yield break;
                // Whoever has signed out meanwhile hears nothing more.
                if (await listener.MayHearAsync(changes.Distinct().ToList(), cancellation) is not { } heard)
                    yield break;
                if (changes.Count == 0)
                    yield return new SseItem<string>("", "quiet");
                foreach (var change in heard)
                    yield return new SseItem<string>(change, "change");
            }
        }
        finally
        {
            _listeners.TryRemove(id, out _);
        }
    }

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        PostgresChannel.ListenAsync(
            source,
            Channel,
            () => Tell("all"),
            Tell,
            reason => log.LogWarning("Live changes are interrupted: {Reason}", reason),
            stoppingToken
        );

    private void Tell(string change)
    {
        foreach (var listener in _listeners.Values)
            listener.Writer.TryWrite(change);
    }
}

/// <summary>Somebody who listens to live changes: says what of them they may hear.</summary>
public interface ILiveListener
{
    /// <summary>Those of some changes that the listener may hear; null where they may hear nothing any more.</summary>
    Task<IReadOnlyList<string>?> MayHearAsync(IReadOnlyList<string> changes, CancellationToken cancellation);
}
