using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Accounts;

/// <summary>Ends all sessions of an account: its user has to sign in anew, wherever they are.</summary>
public sealed class EndAccountSessions(FidDb db)
{
    public async Task<ActResult> DoAsync(EndAccountSessionsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        var author = actor.Author("admin");
        if (await AccountSessions.EndAllAsync(db, account.Id, author.At, cancellation) > 0)
            act.Note(AccountInHand.Entry(author, "account.sessionsEnded", account));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record EndAccountSessionsRequest(Guid Account);
