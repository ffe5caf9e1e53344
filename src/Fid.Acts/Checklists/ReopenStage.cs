using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Checklists;

/// <summary>Says that a gate is not passed after all. It then passes by a person's word alone, unless some of its tasks are still to be done. Who
/// had settled is under way again.</summary>
public sealed class ReopenStage(FidDb db)
{
    public async Task<ActResult> DoAsync(ReopenStageRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (Reason.Require(request.Why, "Say why it is to be looked at again.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await StageInHand.TakeAsync(db, actor, request.Hire, request.Stage, cancellation)).IsDone(out var held, out var refused))
            return refused;
        var (hire, stage) = held;
        var author = actor.Author("checklist");
        if (hire.Closed is not null)
        {
            hire.Closed = null;
            act.Note(author.Change("hire.unsettled", hire.Id, null, why));
        }
        else if (!await StageGates.IsPassedAsync(db, request.Hire, request.Stage, actor.Today, cancellation))
            return Refusal.Conflict("not-passed", "Its gate is not passed.");
        // Its tasks have the say again, where one of them is still to be done.
        (stage.Passed, stage.ByHand, stage.By, stage.Why) = (null, false, actor.Name, why);
        await db.SaveChangesAsync(cancellation);
        stage.ByHand = await StageGates.IsPassedAsync(db, request.Hire, request.Stage, actor.Today, cancellation);
        act.Note(author.Change(AdvanceChecklists.ActionOf(StageStepKind.Reopened), request.Hire, request.Stage, why));
        await db.SaveChangesAsync(cancellation);
        await AdvanceChecklists.TakeStepsAsync(db, act, actor, [request.Hire], cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record ReopenStageRequest(Guid Hire, string Stage, string? Why);
