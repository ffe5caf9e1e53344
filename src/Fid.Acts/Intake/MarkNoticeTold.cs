using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Intake;

/// <summary>Says that somebody told another system by hand.</summary>
public sealed class MarkNoticeTold(FidDb db)
{
    public async Task<ActResult> DoAsync(MarkNoticeToldRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.MayCoordinate) return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal) return refusal;
        if (act.IsDoneAlready) return ActResult.Done;
        if (await db.Notices.SingleOrDefaultAsync(n => n.Id == request.Notice, cancellation) is not { } notice) return Refusal.NotFound;
        if (notice.ToldAt is not null) return ActResult.Done;
        var author = actor.Author("exchange");
        (notice.ToldAt, notice.ToldBy) = (author.At, author.Name);
        act.Note(author.Change("notice.told", notice.HireId, notice.System));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record MarkNoticeToldRequest(Guid Notice);
