using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Throws the draft of a template away: the one that was seen, and no later one.</summary>
public sealed class DiscardTemplateDraft(FidDb db)
{
    public async Task<ActResult> DoAsync(DiscardTemplateDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.TemplatesAsync(db, cancellation);
        if (await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == request.Code, cancellation) is not { } draft)
            return ActResult.Done;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        db.TemplateDrafts.Remove(draft);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Version">The version of the draft that was seen.</param>
public sealed record DiscardTemplateDraftRequest(string Code, uint? Version);
