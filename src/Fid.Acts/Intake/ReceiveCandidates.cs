using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Intake;

namespace Fid.Acts.Intake;

/// <summary>Takes in what a pull of the feed brought, and keeps how it went.</summary>
public sealed class ReceiveCandidates(FidDb db)
{
    public async Task<ActResult<FeedRun>> DoAsync(ReceiveCandidatesRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Candidate))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, "", cancellation);
        var at = actor.Clock.Now;
        var (arrived, changed) = request.Candidates is null ? (0, 0) : await new Intake(db).ReceiveAsync(request.Candidates, at, cancellation);
        var run = new FeedRun
        {
            At = at,
            Tries = request.Tries,
            Candidates = request.Candidates?.Count ?? 0,
            Arrived = arrived,
            Changed = changed,
            Trouble = [.. request.Trouble],
            Succeeded = request.Candidates is not null,
        };
        db.FeedRuns.Add(run);
        await act.CommitAsync(cancellation);
        return run;
    }
}

/// <param name="Candidates">What the feed says; null where it could not be read.</param>
/// <param name="Trouble">What went wrong, try by try.</param>
public sealed record ReceiveCandidatesRequest(IReadOnlyList<FeedCandidate>? Candidates, IReadOnlyList<string> Trouble, int Tries);
