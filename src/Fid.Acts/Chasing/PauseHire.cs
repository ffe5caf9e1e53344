using Fid.Acts.Rights;
using Fid.Acts.Tasks;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Chasing;

/// <summary>Says that nobody is to be reminded of the tasks of a hire for now, or that they are again.</summary>
public sealed class PauseHire(FidDb db)
{
    public async Task<ActResult> DoAsync(PauseHireRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        var reached = await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation);
        await Locks.HiresAsync(db, [request.Hire], cancellation);
        if (await reached(db.Hires).SingleOrDefaultAsync(h => h.Id == request.Hire, cancellation) is not { } hire)
            return Refusal.NotFound;
        if (hire.Closed is not null)
            return TasksInHand.Closed;
        // Who says it second says nothing new.
        if (hire.RemindersPaused != request.Paused)
            act.Note(actor.Author("checklist").Change(request.Paused ? "hire.paused" : "hire.resumed", hire.Id));
        hire.RemindersPaused = request.Paused;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record PauseHireRequest(Guid Hire, bool Paused);
