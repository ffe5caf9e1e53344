using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Lets the user of a disabled account sign in again, with the roles it has.</summary>
public sealed class EnableAccount(FidDb db)
{
    public async Task<ActResult> DoAsync(EnableAccountRequest request, Actor actor, CancellationToken cancellation)
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
        if (account.DisabledAt is null)
            return ActResult.Done;
        if (await Leavers.In(db, actor.Today).AnyAsync(u => u.Id == account.Id, cancellation))
            return Refusal.Conflict("has-left", "By their record they work here no more. Put the last day right, or take the record off the account.");
        account.Enable();
        act.Note(AccountInHand.Entry(actor.Author("admin"), "account.enabled", account));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record EnableAccountRequest(Guid Account);
