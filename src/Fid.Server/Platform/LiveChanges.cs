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
    private static readonly TimeSpan Heartbeat = TimeSpan.FromSeconds(20);
    private static readonly TimeSpan BeforeTryingAgain = TimeSpan.FromSeconds(1);

    private readonly ConcurrentDictionary<Guid, Channel<string>> _listeners = new();

    /// <summary>What changes from now on, as "hire:ID" or "record:ID"; "all" when something may have been missed.</summary>
    public async IAsyncEnumerable<SseItem<string>> ListenAsync([EnumeratorCancellation] CancellationToken cancellation)
    {
        var id = Guid.NewGuid();
        // A browser that does not keep up loses the oldest, and is told that it missed something when it reads on.
        var missed = 0;
        var channel = System.Threading.Channels.Channel.CreateBounded<string>(
            new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest }, _ => Volatile.Write(ref missed, 1));
        _listeners[id] = channel;
        try
        {
            yield return new SseItem<string>("all", "change");
            while (true)
            {
                string? change;
                using (var pause = CancellationTokenSource.CreateLinkedTokenSource(cancellation))
                {
                    pause.CancelAfter(Heartbeat);
                    try
                    {
                        change = await channel.Reader.ReadAsync(pause.Token);
                        if (Interlocked.Exchange(ref missed, 0) == 1) change = "all";
                    }
                    catch (OperationCanceledException) when (!cancellation.IsCancellationRequested)
                    {
                        change = null; // nothing for a while: a word now and then keeps proxies from closing the line
                    }
                }
                yield return change is null ? new SseItem<string>("", "quiet") : new SseItem<string>(change, "change");
            }
        }
        finally
        {
            _listeners.TryRemove(id, out _);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(stoppingToken);
                connection.Notification += (_, notice) => Tell(notice.Payload);
                await using (var listen = new NpgsqlCommand($"listen {Channel}", connection))
                    await listen.ExecuteNonQueryAsync(stoppingToken);
                Tell("all");
                while (true) await connection.WaitAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or System.Net.Sockets.SocketException or IOException)
            {
                log.LogWarning("Live changes are interrupted: {Reason}", e.Message);
                await Task.Delay(BeforeTryingAgain, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private void Tell(string change)
    {
        foreach (var listener in _listeners.Values) listener.Writer.TryWrite(change);
    }
}

internal static class LiveEndpoint
{
    public static void MapLive(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/live", (LiveChanges live, IHostApplicationLifetime lifetime, HttpContext http) =>
        {
            var ends = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, lifetime.ApplicationStopping);
            http.Response.RegisterForDispose(ends);
            return TypedResults.ServerSentEvents(live.ListenAsync(ends.Token));
        }).WhoMay(Access.SignedIn).ExcludeFromDescription();
}
