using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Throws the draft of a template away.</summary>
public sealed class DiscardTemplateDraft(FidDb db)
{
    public async Task<ActResult> DoAsync(DiscardTemplateDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.MayCoordinate)
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == request.Code, cancellation) is { } draft)
            db.TemplateDrafts.Remove(draft);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record DiscardTemplateDraftRequest(string Code);
