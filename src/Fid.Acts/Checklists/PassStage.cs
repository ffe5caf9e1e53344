using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Checklists;

/// <summary>Lets the gate of a stage pass although not all its tasks are done, because somebody says so. They stay to be done.</summary>
public sealed class PassStage(FidDb db)
{
    public async Task<ActResult> DoAsync(PassStageRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (Reason.Require(request.Why, "Say why it need not wait for the rest.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (!(await StageInHand.TakeAsync(db, actor, request.Hire, request.Stage, cancellation)).IsDone(out var held, out var refused))
            return refused;
        if (held.Hire.Closed is not null || await StageGates.IsPassedAsync(db, request.Hire, request.Stage, actor.Today, cancellation))
            return Refusal.Conflict("passed", "Its gate is passed already.");
        var stage = held.Stage;
        (stage.Passed, stage.ByHand, stage.By, stage.Why) = (actor.Today, true, actor.Name, why);
        act.Note(actor.Author("checklist").Change(AdvanceChecklists.ActionOf(StageStepKind.Passed), request.Hire, request.Stage, why));
        await db.SaveChangesAsync(cancellation);
        await AdvanceChecklists.TakeStepsAsync(db, act, actor, [request.Hire], cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record PassStageRequest(Guid Hire, string Stage, string? Why);
