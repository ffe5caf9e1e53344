using Fid.Data;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>
/// Finds the account of somebody whom an issuer of OpenID Connect vouches for, by this rule: the account that this issuer's subject signed in to
/// before; else, once and for all, the account in use with the e-mail address that the issuer says it has verified, unless another subject signs in to
/// it already. No account is ever made, and none that sleeps is woken.
/// </summary>
public sealed class SignInByIssuer(FidDb db)
{
    /// <param name="actor">A visitor: nobody is signed in yet.</param>
    /// <returns>The account.</returns>
    public async Task<ActResult<IssuedAccount>> DoAsync(VouchedFor request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, "", cancellation);
        await Locks.AccountsAsync(db, cancellation);
        var known = await db.UserLogins.SingleOrDefaultAsync(l => l.LoginProvider == request.Issuer && l.ProviderKey == request.Subject, cancellation);
        if (known is not null)
        {
            var account = await db.Users.SingleAsync(u => u.Id == known.UserId, cancellation);
            return account.DisabledAt is null ? new IssuedAccount(account.Id, account.DisplayName) : Disabled;
        }
        if (request.Email is not { } email || !request.IsVerified)
            return Refusal.Conflict("issuer-unverified", "Your sign-in does not vouch for an e-mail address.");
        var normalized = email.Trim().ToUpperInvariant();
        if (await db.Users.SingleOrDefaultAsync(u => u.NormalizedEmail == normalized && u.PasswordHash != null, cancellation) is not { } found)
            return Refusal.Conflict("issuer-unknown", "Nobody here has the address you sign in with. Ask your administrator to invite you.");
        if (found.DisabledAt is not null)
            return Disabled;
        if (await db.UserLogins.AnyAsync(l => l.UserId == found.Id && l.LoginProvider == request.Issuer, cancellation))
            return Refusal.Conflict("issuer-other", "Somebody else signs in to the account with this address. Ask your administrator.");
        db.UserLogins.Add(
            new IdentityUserLogin<Guid>
            {
                LoginProvider = request.Issuer,
                ProviderKey = request.Subject,
                ProviderDisplayName = email,
                UserId = found.Id,
            }
        );
        act.Note(AccountInHand.Entry(actor.Author("session") with { Id = found.Id, Name = found.DisplayName }, "account.issuerLinked", found));
        await act.CommitAsync(cancellation);
        return new IssuedAccount(found.Id, found.DisplayName);
    }

    private static Refusal Disabled { get; } = Refusal.Conflict("account-disabled", "This account is disabled. Ask your administrator.");
}

/// <summary>What an issuer says of somebody.</summary>
/// <param name="Subject">By which the issuer knows them: never given to another (OpenID Connect Core 1.0, 5.7).</param>
/// <param name="Email">Their address; null where it says none.</param>
/// <param name="IsVerified">Whether it says that the address is theirs.</param>
public sealed record VouchedFor(string Issuer, string Subject, string? Email, bool IsVerified);

/// <summary>The account of somebody who signs in.</summary>
public sealed record IssuedAccount(Guid Id, string Name);
