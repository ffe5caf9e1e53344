using Fid.Core;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Identity;

namespace Fid.Acts.Accounts;

/// <summary>Sets the password of an account by the link that its user was given. The link is used up with it.</summary>
public sealed class SetPassword(FidDb db, UserManager<FidUser> users)
{
    /// <param name="actor">The user who has the link; nothing else is known of them.</param>
    public async Task<ActResult> DoAsync(SetPasswordRequest request, Actor actor, CancellationToken cancellation)
    {
        if (PasswordRules.Check("/password", request.Password) is { } wrong)
            return Refusal.Invalid(wrong);
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, "", cancellation);
        await Locks.AccountsAsync(db, cancellation);
        if (await AccountLinks.FindAsync(db, request.Token, actor.Clock.Now, cancellation) is not { } account)
            return Spent;
        foreach (var validator in users.PasswordValidators)
            if (await validator.ValidateAsync(users, account, request.Password) is { Succeeded: false } bad)
                return Refusal.Invalid([.. bad.Errors.Select(e => new Problem("/password", "bad-value", e.Description))]);
        var author = new Author(account.Id, account.DisplayName, actor.Clock.Now, "invitation");
        var isNew = account.PasswordHash is null;
        account.PasswordHash = users.PasswordHasher.HashPassword(account, request.Password);
        account.SecurityStamp = Guid.NewGuid().ToString("N");
        db.AccountLinks.RemoveRange(db.AccountLinks.Where(l => l.UserId == account.Id));
        await AccountSessions.EndAllAsync(db, account.Id, author.At, cancellation);
        act.Note(AccountInHand.Entry(author, isNew ? "account.accepted" : "account.passwordSet", account));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>What is said of a link that opens nothing, whatever the reason: nobody learns which there were.</summary>
    public static Refusal Spent { get; } =
        new(RefusalKind.NotFound, "link-spent", "This link opens nothing any more. Ask your administrator for a new one.", []);
}

/// <param name="Token">What the link holds.</param>
public sealed record SetPasswordRequest(string Token, string Password);
