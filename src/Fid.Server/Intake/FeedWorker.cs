using Fid.Acts;
using Fid.Acts.Intake;
using Fid.Acts.Outbox;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Server.Intake;

/// <summary>Pulls the recruiting feed from time to time, and tells it what became of its candidates. Whichever server is first does it.</summary>
public sealed class FeedWorker(IServiceScopeFactory scopes, FirmClock clock, FeedPatience patience, ILogger<FeedWorker> log) : BackgroundService
{
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(5);
    // Longer than a feed may take to answer.
    private static readonly Duration Mine = Duration.FromMinutes(2);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(BetweenLooks);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<FidDb>();
                await TellAsync(db, scope.ServiceProvider.GetRequiredService<OutboxDelivery>(), scope.ServiceProvider.GetRequiredService<FeedClient>(), stoppingToken);
                if (await IsDueAsync(db, stoppingToken)) await scope.ServiceProvider.GetRequiredService<FeedPull>().PullAsync(await Actor.FidAsync("feed", clock, db, stoppingToken), stoppingToken);
            }
            catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException)
            {
                log.LogWarning(e, "The recruiting feed could not be looked at; it is tried again");
            }
        }
        while (!stoppingToken.IsCancellationRequested && await timer.WaitForNextTickAsync(stoppingToken).AsTask().ContinueWith(t => t.IsCompletedSuccessfully && t.Result, TaskScheduler.Default));
    }

    private async Task<bool> IsDueAsync(FidDb db, CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleOrDefaultAsync(cancellation) is null) return false;
        var last = await db.FeedRuns.MaxAsync(r => (Instant?)r.At, cancellation);
        return last is null || clock.Now - last.Value >= Duration.FromTimeSpan(patience.Between);
    }

    // One by one: nothing waits for the feed within a transaction.
    private async Task TellAsync(FidDb db, OutboxDelivery outbox, FeedClient feed, CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleOrDefaultAsync(cancellation) is not { } address) return;
        while (await outbox.TakeAsync(Notice.Recruiting, Mine, cancellation) is { } notice)
            await outbox.SettleAsync(notice, await feed.TellAsync(new Uri(address), notice, cancellation), Duration.FromTimeSpan(patience.Pause), cancellation);
    }
}

/// <summary>One pull of the feed.</summary>
public sealed class FeedPull(FidDb db, FeedClient feed, ReceiveCandidates receive)
{
    /// <summary>Pulls, takes in what there is, and keeps how it went; null where the firm has no feed.</summary>
    public async Task<FeedRun?> PullAsync(Actor actor, CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation) is not { } address) return null;
        var (candidates, trouble, tries) = await feed.PullAsync(new Uri(address), cancellation);
        return (await receive.DoAsync(new ReceiveCandidatesRequest(candidates, trouble, tries), actor, cancellation)).Answer;
    }
}
