using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>How many accounts hold each role on a day, by grant or by rule.</summary>
public static class RoleHolders
{
    public static async Task<Dictionary<string, int>> CountAsync(FidDb db, RoleSet set, LocalDate today, CancellationToken cancellation) =>
        (await AccountRoles.On(db, today).Where(a => !a.IsDisabled).ToListAsync(cancellation))
            .SelectMany(a => a.AllOf(set).Distinct())
            .GroupBy(role => role)
            .ToDictionary(g => g.Key, g => g.Count());
}
