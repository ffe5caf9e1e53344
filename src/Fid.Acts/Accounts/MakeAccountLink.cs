using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Accounts;

/// <summary>Makes a new link to set a password by: for somebody whose invitation has run out, or who has forgotten the password.</summary>
public sealed class MakeAccountLink(FidDb db)
{
    /// <summary>The link, which is shown this once. Asked for again, it makes another, and the first opens nothing.</summary>
    public async Task<ActResult<GivenLink>> DoAsync(MakeAccountLinkRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        if (account.DisabledAt is not null)
            return Refusal.Conflict("account-disabled", "This account is disabled. Enable it first.");
        if (account.Email is null)
            return Refusal.Conflict("no-email", "Nobody has been invited to this account yet. Say what they sign in with.");
        var author = actor.Author("admin");
        var link = await AccountLinks.MakeAsync(db, account, author.At, cancellation);
        if (!act.IsDoneAlready)
            act.Note(AccountInHand.Entry(author, "account.linkMade", account));
        await act.CommitAsync(cancellation);
        return link;
    }
}

public sealed record MakeAccountLinkRequest(Guid Account);
