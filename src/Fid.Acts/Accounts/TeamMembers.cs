using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Which teams have somebody who does their tasks: what a team owns that has nobody, nobody does.</summary>
public static class TeamMembers
{
    /// <summary>The codes of the teams, of the firm's list, in which nobody is who can sign in or will.</summary>
    public static IQueryable<string> NobodyIn(FidDb db) =>
        db.ListEntries.Where(e => e.List == "teams" && !db.Users.Any(u => u.DisabledAt == null && u.Teams.Contains(e.Code))).Select(e => e.Code);

    /// <summary>The same, read, in order.</summary>
    public static async Task<string[]> NobodyInAsync(FidDb db, CancellationToken cancellation) =>
        [.. (await NobodyIn(db).ToListAsync(cancellation)).Order(StringComparer.Ordinal)];
}
