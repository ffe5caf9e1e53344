using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Which teams have somebody who does their tasks: what a team owns that has nobody, nobody does.</summary>
public static class TeamMembers
{
    /// <summary>The codes of the teams, of the firm's list, in which nobody is who can sign in or will.</summary>
    public static async Task<HashSet<string>> NobodyInAsync(FidDb db, CancellationToken cancellation)
    {
        var teams = await db
            .ListEntries.Where(e => e.List == "teams" && !db.Users.Any(u => u.DisabledAt == null && u.Teams.Contains(e.Code)))
            .Select(e => e.Code)
            .ToListAsync(cancellation);
        return [.. teams];
    }
}
