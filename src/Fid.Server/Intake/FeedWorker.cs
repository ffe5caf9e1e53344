using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Server.Intake;

/// <summary>Pulls the recruiting feed from time to time, and tells it what became of its candidates. Whichever server is first does it.</summary>
public sealed class FeedWorker(IServiceScopeFactory scopes, FirmClock clock, FeedPatience patience, ILogger<FeedWorker> log) : BackgroundService
{
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(5);
    private static readonly Duration LongestPause = Duration.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(BetweenLooks);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<FidDb>();
                await TellAsync(db, scope.ServiceProvider.GetRequiredService<FeedClient>(), stoppingToken);
                if (await IsDueAsync(db, stoppingToken)) await scope.ServiceProvider.GetRequiredService<FeedPull>().PullAsync(stoppingToken);
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

    // One by one, each under its own lock: a server that dies in the middle leaves the notice waiting, and the feed knows by its id
    // that it has heard it already.
    private async Task TellAsync(FidDb db, FeedClient feed, CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleOrDefaultAsync(cancellation) is not { } address) return;
        while (true)
        {
            await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
            var now = clock.Now;
            var notice = await db.Notices.FromSql($"""
                select *, xmin from notices where told_at is null and system = {Notice.Recruiting} and next_try <= {now} order by at limit 1 for update skip locked
                """).SingleOrDefaultAsync(cancellation);
            if (notice is null) return;
            notice.Tries++;
            notice.Trouble = await feed.TellAsync(new Uri(address), notice, cancellation);
            if (notice.Trouble is null) notice.ToldAt = clock.Now;
            else notice.NextTry = now + Duration.Min(LongestPause, Duration.FromTimeSpan(patience.Pause) * Math.Pow(2, Math.Min(notice.Tries, 20)));
            await db.SaveChangesAsync(cancellation);
            await transaction.CommitAsync(cancellation);
            db.ChangeTracker.Clear();
        }
    }
}

/// <summary>One pull of the feed.</summary>
public sealed class FeedPull(FidDb db, FeedClient feed, FirmClock clock)
{
    /// <summary>Pulls, takes in what there is, and keeps how it went; null where the firm has no feed.</summary>
    public async Task<FeedRun?> PullAsync(CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation) is not { } address) return null;
        var (candidates, trouble, tries) = await feed.PullAsync(new Uri(address), cancellation);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var (arrived, changed) = candidates is null ? (0, 0) : await new Data.Intake.Intake(db).ReceiveAsync(candidates, clock.Now, cancellation);
        var run = new FeedRun { At = clock.Now, Tries = tries, Candidates = candidates?.Length ?? 0, Arrived = arrived, Changed = changed, Trouble = [.. trouble], Succeeded = candidates is not null };
        db.FeedRuns.Add(run);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return run;
    }
}
