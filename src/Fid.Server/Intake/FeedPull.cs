using Fid.Acts;
using Fid.Acts.Intake;
using Fid.Data;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Intake;

/// <summary>One pull of the feed.</summary>
public sealed class FeedPull(FidDb db, FeedClient feed, ReceiveCandidates receive)
{
    /// <summary>Pulls, takes in what there is, and keeps how it went; null where the firm has no feed.</summary>
    public async Task<FeedRun?> PullAsync(Actor actor, CancellationToken cancellation)
    {
        if (await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation) is not { } address)
            return null;
        var (candidates, trouble, tries) = await feed.PullAsync(new Uri(address), cancellation);
        return (await receive.DoAsync(new ReceiveCandidatesRequest(candidates, trouble, tries), actor, cancellation)).Answer;
    }
}
