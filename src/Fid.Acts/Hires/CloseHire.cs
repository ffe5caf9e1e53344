using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Hires;

/// <summary>Closes a hire that came to nothing: its open tasks are cancelled, its stint ends before it began, and other systems are told. Of a
/// change of job or a leaving that is called off, what it brought into the record is taken out.</summary>
public sealed class CloseHire(FidDb db, HireClosing closing, OccasionRecord occasionRecord)
{
    public async Task<ActResult> DoAsync(CloseHireRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Hire))
            return Refusal.Forbidden;
        if (Reason.Require(request.Why, "Say why.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await HireInHand.TakeAsync(db, actor, Actions.Edit, request.Hire, cancellation) is not { } hire)
            return Refusal.NotFound;
        if (hire.Hire.Closed is not null)
            return Refusal.Conflict("closed", "This hire is closed already.");
        if (hire.Hire.Occasion != Occasion.Arrival)
            return await CallOffAsync(hire, request.Outcome, why, act, actor, cancellation);
        if (request.Outcome == HireOutcome.NoShow && hire.Hire.Start > actor.Today)
            return Refusal.Invalid("/outcome", "too-early", "The first day has not come yet. Say that the person withdrew, or move the start.");
        var change = act.Note(
            actor.Author("checklist").Change(request.Outcome == HireOutcome.NoShow ? "hire.noShow" : "hire.withdrawn", request.Hire, null, why)
        );
        await closing.CloseAsync(hire, request.Outcome, why, change, actor.Today, cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private async Task<ActResult> CallOffAsync(HireInHand what, HireOutcome outcome, string why, ActScope act, Actor actor, CancellationToken cancellation)
    {
        if (outcome != HireOutcome.Withdrawn)
            return Refusal.Invalid("/outcome", "not-here", "Only who was to arrive can fail to come. Say that it is called off.");
        var author = actor.Author("checklist");
        if (await occasionRecord.CallOffAsync(what, new ActAuthor(author, why, actor.Today), cancellation) is [var problem, ..])
            return Refusal.Conflict(problem.Code, problem.Message);
        HireClosing.Cancel(what.Hire, outcome, why, actor.Today);
        act.Note(author.Change("hire.withdrawn", what.Hire.Id, null, why));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Outcome">How it came to nothing.</param>
public sealed record CloseHireRequest(Guid Hire, HireOutcome Outcome, string? Why);
