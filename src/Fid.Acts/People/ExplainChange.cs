using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Adds to a change of a record why it was made.</summary>
public sealed class ExplainChange(FidDb db)
{
    /// <summary>The action of the entry in the trail; its part is the change that it explains.</summary>
    public const string Action = "record.explained";

    public async Task<ActResult> DoAsync(ExplainChangeRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Correct, Things.Record))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (
            await RecordAccess.FindAsync(actor, db, request.Employment, tracked: false, cancellation) is not var (_, record)
            || !await RecordAccess.MayAsync(actor, db, Actions.Correct, record, cancellation)
        )
            return Refusal.NotFound;
        if (!await db.Changes.AnyAsync(c => c.Id == request.Change && c.SubjectId == request.Employment, cancellation))
            return Refusal.NotFound;
        if (Reason.Require(request.Why, "Fill this in.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        act.Note(actor.Author("record").Change(Action, request.Employment, request.Change.ToString(), why));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record ExplainChangeRequest(Guid Employment, Guid Change, string? Why);
