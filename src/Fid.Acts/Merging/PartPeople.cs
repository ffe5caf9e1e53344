using Fid.Acts.Hires;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Merging;

/// <summary>Parts people again who had been made one, and goes on with the hires that were closed with it.</summary>
public sealed class PartPeople(FidDb db, PersonMerging merging, HireClosing closing)
{
    public async Task<ActResult> DoAsync(PartPeopleRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Merge, Things.Record))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.PersonMerges.SingleOrDefaultAsync(m => m.Id == request.Merge, cancellation) is not { } merge)
            return Refusal.NotFound;
        if (!await MergePeople.MayAsync(db, actor, [merge.KeptId, merge.OtherId], cancellation))
            return Refusal.NotFound;
        if (merge.Undone)
            return Refusal.Conflict("undone-already", "This has been undone already.");
        var author = actor.Author("record");
        await merging.HoldAsync([merge.KeptId, merge.OtherId], merge.ClosedHires, cancellation);
        if (await merging.UndoAsync(merge, author, actor.Today, cancellation) is not null)
            return Refusal.Conflict("changed-since", "A value that was taken over has been changed since. Put it back first.");
        foreach (var id in merge.ClosedHires)
        {
            var hire = (await HireInHand.TakeAsync(db, id, cancellation))!;
            // Somebody may have gone on with it, or closed it for another reason, in the meantime.
            if (hire.Hire.Outcome != HireOutcome.Withdrawn)
                continue;
            await closing.GoOnAsync(hire, act.Note(author.Change("hire.wentOn", id)), actor.Today, cancellation);
        }
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record PartPeopleRequest(Guid Merge);
