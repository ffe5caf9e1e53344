using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;

namespace Fid.Acts.Accounts;

/// <summary>Lets nobody sign in with an account any more. Its sessions end and its link opens nothing; what its user did stays theirs.</summary>
public sealed class DisableAccount(FidDb db)
{
    public async Task<ActResult> DoAsync(DisableAccountRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        if (request.Account == actor.AccountId)
            return Refusal.Conflict("own-account", "This is your own account. Somebody else has to disable it.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        if (account.DisabledAt is not null)
            return ActResult.Done;
        if (!await AccountInHand.LeavesAdministratorAsync(db, account.Id, cancellation))
            return AccountInHand.LastAdministrator;
        await AccountEnding.EndAsync(db, account, AccountEnd.ByHand, actor.Author("admin"), cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record DisableAccountRequest(Guid Account);
