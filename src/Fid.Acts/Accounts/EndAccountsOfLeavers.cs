using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Disables the accounts of those who have left, from the day after their last day on, and enables a newcomer's again whose
/// hire goes on after all. The last administrator's stays: without it nobody could be invited any more.</summary>
public sealed class EndAccountsOfLeavers(FidDb db)
{
    /// <returns>How many accounts ended, and began again.</returns>
    public async Task<ActResult<int>> DoAsync(EndAccountsOfLeaversRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return 0;
        var handled = 0;
        await Locks.AccountsAsync(db, cancellation);
        var author = actor.Author("admin");
        foreach (var account in await Leavers.In(db, actor.Today).Where(u => u.DisabledAt == null).ToListAsync(cancellation))
        {
            if (!await AccountInHand.LeavesAdministratorAsync(db, account.Id, cancellation))
                continue;
            await AccountEnding.EndAsync(db, account, AccountEnd.Left, author, cancellation);
            await db.SaveChangesAsync(cancellation);
            handled++;
        }
        var gone = Leavers.In(db, actor.Today);
        foreach (
            var account in await db
                .Users.Where(u =>
                    u.DisabledWhy == AccountEnd.Left
                    && !gone.Any(g => g.Id == u.Id)
                    && db.RoleGrants.Where(g => g.AccountId == u.Id).All(g => g.Role == ShippedRoles.Newcomer)
                )
                .ToListAsync(cancellation)
        )
        {
            account.Enable();
            act.Note(AccountInHand.Entry(author, "account.enabled", account));
            handled++;
        }
        await act.CommitAsync(cancellation);
        return handled;
    }
}

public sealed record EndAccountsOfLeaversRequest;
