using Fid.Acts;
using Fid.Acts.Outbox;
using Fid.Acts.Work;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Intake;

/// <summary>What Fid does with the recruiting feed by itself: pulls it from time to time, and tells it what became of its candidates.
/// Nothing waits for the feed within a transaction.</summary>
internal static class FeedJobs
{
    // Longer than a feed may take to answer.
    private static readonly Duration Mine = Duration.FromMinutes(2);

    public static void AddFeedJobs(this IServiceCollection services) =>
        services.AddJob("feed", Duration.FromSeconds(5), JobLane.Short, PullAsync).AddJob("recruiting", Duration.FromSeconds(5), JobLane.Short, TellAsync);

    private static async Task<int> PullAsync(IServiceProvider of, string? none, Actor fid, CancellationToken cancellation)
    {
        var (db, between) = (of.GetRequiredService<FidDb>(), Duration.FromTimeSpan(of.GetRequiredService<FeedPatience>().Between));
        if (await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation) is null)
            return 0;
        if (await db.FeedRuns.MaxAsync(r => (Instant?)r.At, cancellation) is { } last && fid.Clock.Now - last < between)
            return 0;
        await of.GetRequiredService<FeedPull>().PullAsync(fid, cancellation);
        return 1;
    }

    private static async Task<int> TellAsync(IServiceProvider of, string? none, Actor fid, CancellationToken cancellation)
    {
        var (db, outbox, feed, told) = (of.GetRequiredService<FidDb>(), of.GetRequiredService<OutboxDelivery>(), of.GetRequiredService<FeedClient>(), 0);
        if (await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation) is not { } address)
            return 0;
        var pause = Duration.FromTimeSpan(of.GetRequiredService<FeedPatience>().Pause);
        while (await outbox.TakeAsync(OutboxMessage.Recruiting, Mine, cancellation) is { } message)
        {
            await outbox.SettleAsync(message, await feed.TellAsync(new Uri(address), message, cancellation), pause, cancellation);
            told++;
        }
        return told;
    }
}
