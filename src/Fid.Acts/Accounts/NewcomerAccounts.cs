using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Makes the accounts of newcomers with their hires. They sleep: nobody can sign in before being invited.</summary>
public sealed class NewcomerAccounts(FidDb db)
{
    /// <summary>Puts the account of a new person into the context.</summary>
    public void Add(Guid person, string name, Author author)
    {
        var account = FidUser.Asleep(person, name, author.At);
        db.Users.Add(account);
        db.RoleGrants.Add(AccountInHand.Grant(account.Id, ShippedRoles.Newcomer, author.At, author.Name));
    }

    /// <summary>The same of somebody the firm knows. One who has an account keeps it, unless it ended when they left: then it sleeps
    /// again, and what they may is a newcomer's. What they may besides is said when they are invited.</summary>
    public async Task AddOrWakeAsync(Guid person, string name, Author author, CancellationToken cancellation)
    {
        var theirs = await db.Users.Where(u => u.PersonId == person).ToListAsync(cancellation);
        if (theirs.Count == 0)
            Add(person, name, author);
        foreach (var account in theirs.Where(u => u.DisabledWhy == AccountEnd.Left))
        {
            account.Enable();
            (account.PasswordHash, account.Teams, account.SecurityStamp) = (null, [], Guid.NewGuid().ToString("N"));
            db.RoleGrants.RemoveRange(await db.RoleGrants.Where(g => g.AccountId == account.Id && (g.From != null || g.To != null)).ToListAsync(cancellation));
            await AccountInHand.SetRolesAsync(db, account.Id, [ShippedRoles.Newcomer], author, cancellation);
        }
    }
}
