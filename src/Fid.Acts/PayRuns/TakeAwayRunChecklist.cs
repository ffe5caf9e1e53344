using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.PayRuns;

/// <summary>Takes away the checklist of a pay run that was begun from the wrong template, as long as nothing in it is done.</summary>
public sealed class TakeAwayRunChecklist(FidDb db)
{
    public async Task<ActResult> DoAsync(TakeAwayRunChecklistRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Pay))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RunChecklistsAsync(db, cancellation);
        if (await db.RunChecklists.Include(c => c.Tasks).SingleOrDefaultAsync(c => c.Id == request.Checklist, cancellation) is not { } checklist)
            return Refusal.NotFound;
        if (checklist.Tasks.Exists(t => t.Done is not null || t.SkippedWhy is not null))
            return Refusal.Conflict("begun", "Something in it is done already. It stays.");
        db.RunChecklists.Remove(checklist);
        act.Note(actor.Author("payCheck").Change("payRun.takenAway", checklist.Id, RunName.Of(checklist)));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record TakeAwayRunChecklistRequest(Guid Checklist);
