using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>The end of an account, whoever brings it about.</summary>
internal static class AccountEnding
{
    /// <summary>Disables an account that is held, ends its sessions, and takes its link away. To be committed by the act.</summary>
    public static async Task EndAsync(FidDb db, FidUser account, AccountEnd why, Author author, CancellationToken cancellation)
    {
        account.Disable(why, author.At);
        await AccountSessions.EndAllAsync(db, account.Id, author.At, cancellation);
        await db.AccountLinks.Where(l => l.UserId == account.Id).ExecuteDeleteAsync(cancellation);
        db.Changes.Add(AccountInHand.Entry(author, "account.disabled", account, new { why = why.ToString() }));
    }
}
