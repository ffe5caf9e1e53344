using Fid.Acts.Outbox;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Intake;

/// <summary>Declines a candidate who waits in the tray; recruiting is told.</summary>
public sealed class DeclineCandidate(FidDb db, HireNotices notices)
{
    public async Task<ActResult> DoAsync(DeclineCandidateRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Candidate))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.IntakeCandidates.SingleOrDefaultAsync(c => c.Id == request.Candidate, cancellation) is not { } candidate)
            return Refusal.NotFound;
        if (candidate.State != IntakeState.Waiting)
            return Refusal.Conflict("not-waiting", "This candidate does not wait any more.");
        var author = actor.Author("exchange");
        (candidate.State, candidate.Why) = (IntakeState.Declined, Reason.Clean(request.Why));
        var change = act.Note(author.Change("candidate.declined", candidate.Id, candidate.SourceId, candidate.Why));
        notices.TellRecruiting(candidate, new HireNotice(NoticeKind.Declined, "", candidate.Now.Start ?? actor.Today), null, change);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record DeclineCandidateRequest(Guid Candidate, string? Why);
