using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.FieldDrafts;

/// <summary>Throws the draft of the fields away: the one that was seen, and no later one.</summary>
public sealed class DiscardFieldDraft(FidDb db)
{
    public async Task<ActResult> DoAsync(DiscardFieldDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Fields))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.FieldDraftAsync(db, cancellation);
        if (await db.FieldDrafts.SingleOrDefaultAsync(cancellation) is not { } draft)
            return ActResult.Done;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        db.FieldDrafts.Remove(draft);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Version">The version of the draft that was seen.</param>
public sealed record DiscardFieldDraftRequest(uint? Version);
