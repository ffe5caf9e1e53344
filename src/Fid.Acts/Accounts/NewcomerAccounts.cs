using Fid.Data;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Makes the accounts of newcomers with their hires. They sleep: nobody can sign in before being invited.</summary>
public sealed class NewcomerAccounts(FidDb db)
{
    private Guid? _role;

    /// <summary>Puts the account of a new person into the context.</summary>
    public async Task AddAsync(Guid person, string name, Instant at, CancellationToken cancellation)
    {
        var account = FidUser.Asleep(person, name, at);
        db.Users.Add(account);
        db.UserRoles.Add(new IdentityUserRole<Guid> { UserId = account.Id, RoleId = await RoleAsync(cancellation) });
    }

    /// <summary>The same of somebody the firm knows. One who has an account keeps it, unless it ended when they left: then it sleeps
    /// again, and what they may is a newcomer's. What they may besides is said when they are invited.</summary>
    public async Task AddOrWakeAsync(Guid person, string name, Instant at, CancellationToken cancellation)
    {
        var theirs = await db.Users.Where(u => u.PersonId == person).ToListAsync(cancellation);
        if (theirs.Count == 0)
            await AddAsync(person, name, at, cancellation);
        foreach (var account in theirs.Where(u => u.DisabledWhy == AccountEnd.Left))
        {
            account.Enable();
            (account.PasswordHash, account.Teams, account.SecurityStamp) = (null, [], Guid.NewGuid().ToString("N"));
            await AccountInHand.SetRolesAsync(db, account.Id, [Roles.Newcomer], cancellation);
        }
    }

    private async Task<Guid> RoleAsync(CancellationToken cancellation) =>
        _role ??= await db.Roles.Where(r => r.Name == Roles.Newcomer).Select(r => r.Id).SingleAsync(cancellation);
}
