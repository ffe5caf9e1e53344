using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Outbox;

/// <summary>Says that somebody told another system by hand.</summary>
public sealed class MarkMessageTold(FidDb db)
{
    public async Task<ActResult> DoAsync(MarkMessageToldRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Candidate))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.Outbox.SingleOrDefaultAsync(m => m.Id == request.Message, cancellation) is not { } message)
            return Refusal.NotFound;
        if (message.SentAt is not null)
            return ActResult.Done;
        var author = actor.Author("exchange");
        (message.SentAt, message.SentBy) = (author.At, author.Name);
        act.Note(author.Change("notice.told", message.HireId ?? message.Id, message.Channel));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record MarkMessageToldRequest(Guid Message);
