using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.RoleDrafts;

/// <summary>Throws the draft of roles and groups away: the one that was seen, and no later one.</summary>
public sealed class DiscardRightsDraft(FidDb db)
{
    public async Task<ActResult> DoAsync(DiscardRightsDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Role))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RightsDraftAsync(db, cancellation);
        if (await db.RightsDrafts.SingleOrDefaultAsync(cancellation) is not { } draft)
            return ActResult.Done;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        db.RightsDrafts.Remove(draft);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Version">The version of the draft that was seen.</param>
public sealed record DiscardRightsDraftRequest(uint? Version);
