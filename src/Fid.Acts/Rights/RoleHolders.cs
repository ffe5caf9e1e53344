using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>How many accounts hold each role on a day, by grant or by rule.</summary>
public static class RoleHolders
{
    public static async Task<Dictionary<string, int>> CountAsync(FidDb db, RoleSet set, LocalDate today, CancellationToken cancellation)
    {
        var granted = await db
            .RoleGrants.Where(g => (g.From == null || g.From <= today) && (g.To == null || g.To >= today))
            .Where(g => db.Users.Any(u => u.Id == g.AccountId && u.DisabledAt == null))
            .Select(g => new { g.AccountId, g.Role })
            .Distinct()
            .ToListAsync(cancellation);
        var ruled = set.Groups.All(g => g.Roles.Count == 0)
            ? []
            : await db
                .Users.Where(u => u.DisabledAt == null)
                .Join(
                    db.Employments.Where(e => e.Start <= today && (e.End == null || e.End >= today)),
                    u => u.PersonId,
                    e => e.PersonId,
                    (u, e) => new { u, e }
                )
                .Join(db.CurrentRecords.Where(r => r.Groups.Length > 0), x => x.e.Id, r => r.EmploymentId, (x, r) => new { x.u.Id, r.Groups })
                .ToListAsync(cancellation);
        return granted
            .Select(g => (g.AccountId, g.Role))
            .Concat(ruled.SelectMany(r => set.RolesOf(r.Groups).Select(role => (r.Id, role))))
            .Distinct()
            .GroupBy(h => h.Item2)
            .ToDictionary(g => g.Key, g => g.Count());
    }
}
