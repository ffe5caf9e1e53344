using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Invites somebody to sign in: makes their account, or wakes the one that sleeps, and a link to set a password by.</summary>
public sealed class InviteUser(FidDb db)
{
    /// <summary>The link, which is shown this once. Asked for again under its key, it makes another, and the first opens nothing.</summary>
    public async Task<ActResult<GivenLink>> DoAsync(InviteUserRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        if (!actor.May(Actions.Grant, Things.Role))
            return Refusal.Invalid("/roles", "may-not-grant", "You may not give roles, and everybody who signs in has one.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.AccountsAsync(db, cancellation);
        var author = actor.Author("admin");
        if (act.IsDoneAlready)
        {
            var email = request.Facts.Email.Trim().ToUpperInvariant();
            if (await db.Users.SingleOrDefaultAsync(u => u.NormalizedEmail == email, cancellation) is not { } made)
                return Refusal.NotFound;
            var another = await AccountLinks.MakeAsync(db, made, author.At, cancellation);
            await act.CommitAsync(cancellation);
            return another;
        }
        var account = await AsleepAsync(request.Facts.Employment, cancellation);
        var isNew = account is null;
        account ??= new FidUser
        {
            DisplayName = "",
            MadeAt = author.At,
            SecurityStamp = Guid.NewGuid().ToString("N"),
            LockoutEnabled = true,
        };
        if (await request.Facts.PutIntoAsync(account, db, cancellation) is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        if (isNew)
            db.Users.Add(account);
        await db.SaveChangesAsync(cancellation);
        await AccountInHand.SetRolesAsync(db, account.Id, [.. request.Facts.Roles], author, cancellation);
        var link = await AccountLinks.MakeAsync(db, account, author.At, cancellation);
        act.Note(AccountInHand.Entry(author, "account.invited", account, new { roles = request.Facts.Roles, teams = account.Teams }));
        await act.CommitAsync(cancellation);
        return link;
    }

    // The account that was made with somebody's hire, and that nobody has been invited to so far.
    private async Task<FidUser?> AsleepAsync(Guid? employment, CancellationToken cancellation) =>
        employment is null
            ? null
            : await db
                .Users.Where(u => u.PasswordHash == null && u.DisabledAt == null && db.Employments.Any(e => e.Id == employment && e.PersonId == u.PersonId))
                .OrderBy(u => u.Id)
                .FirstOrDefaultAsync(cancellation);
}

public sealed record InviteUserRequest(AccountFacts Facts);
