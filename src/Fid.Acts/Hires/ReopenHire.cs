using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Goes on with a hire that had come to nothing: what was cancelled with it is open again.</summary>
public sealed class ReopenHire(FidDb db, HireClosing closing, OccasionRecord occasionRecord)
{
    public async Task<ActResult> DoAsync(ReopenHireRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Hire))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await HireInHand.TakeAsync(db, actor, Actions.Edit, request.Hire, cancellation) is not { } hire)
            return Refusal.NotFound;
        if (hire.Hire.Outcome is null)
            return Refusal.Conflict("not-closed", "This hire has not come to nothing.");
        if (hire.Hire.Occasion != Occasion.Arrival)
            return await GoOnAsync(hire, act, actor, cancellation);
        if (await Stints.AnyGoesOnAsync(db, hire.Employment.PersonId, hire.Employment.Start, hire.Employment.Id, cancellation))
            return Refusal.Conflict("other-stint", "They have another stint by now. Close that one first.");
        var change = act.Note(actor.Author("checklist").Change("hire.wentOn", request.Hire));
        await closing.GoOnAsync(hire, change, actor.Today, cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private async Task<ActResult> GoOnAsync(HireInHand what, ActScope act, Actor actor, CancellationToken cancellation)
    {
        var (hire, author) = (what.Hire, actor.Author("checklist"));
        if (await db.Hires.AnyAsync(h => h.EmploymentId == hire.EmploymentId && h.Occasion == hire.Occasion && h.Closed == null, cancellation))
            return Refusal.Conflict("under-way", "Another one is under way for them by now. Go on with that, or call it off first.");
        if (OpenChecklist.CheckDay(hire.Occasion, hire.Start, what.Employment) is { } day)
            return Refusal.Conflict(day.Code, day.Message);
        if (await occasionRecord.GoOnAsync(what, new ActAuthor(author, null, actor.Today), cancellation) is [var problem, ..])
            return Refusal.Conflict(problem.Code, problem.Message);
        HireClosing.TakeCancellationBack(hire);
        act.Note(author.Change("hire.wentOn", hire.Id));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record ReopenHireRequest(Guid Hire);
