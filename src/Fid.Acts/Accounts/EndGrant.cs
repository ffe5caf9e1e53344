using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Takes a role that was granted away at once, whether it counts by now or not.</summary>
public sealed class EndGrant(FidDb db)
{
    public async Task<ActResult> DoAsync(EndGrantRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Grant, Things.Role))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        if (await db.RoleGrants.SingleOrDefaultAsync(g => g.Id == request.Grant && g.AccountId == account.Id, cancellation) is not { } grant)
            return Refusal.NotFound;
        var isForGood = grant is { From: null, To: null };
        if (
            isForGood
            && (await LiveRights.LiveAsync(db, cancellation)).Administering.Contains(grant.Role)
            && !await AccountInHand.LeavesAdministratorAsync(db, account.Id, cancellation)
        )
            return AccountInHand.LastAdministrator;
        db.RoleGrants.Remove(grant);
        account.Version++;
        act.Note(AccountInHand.Entry(actor.Author("admin"), "role.taken", account, GrantRole.Words(grant)) with { Why = Reason.Clean(request.Why) });
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record EndGrantRequest(Guid Account, Guid Grant, string? Why);
