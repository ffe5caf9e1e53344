using System.Security.Claims;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Hires;

/// <summary>Which hires a user may see whole: coordinators, administrators and payroll all, managers their own newcomers.</summary>
internal static class HireAccess
{
    public static async Task<Func<IQueryable<Hire>, IQueryable<Hire>>> VisibleAsync(ClaimsPrincipal user, FidDb db, CancellationToken cancellation)
    {
        if (user.MayReadEverybody()) return hires => hires;
        var employments = await EmploymentsOfAsync(user, db, cancellation);
        return hires => hires.Where(h => db.RecordsNow.Any(r => r.EmploymentId == h.EmploymentId && r.ManagerId != null && employments.Contains(r.ManagerId.Value)));
    }

    /// <summary>The user's own employments: what a record's manager field names.</summary>
    public static async Task<Guid[]> EmploymentsOfAsync(ClaimsPrincipal user, FidDb db, CancellationToken cancellation) =>
        Guid.TryParse(user.FindFirstValue(FidClaims.Person), out var person)
            ? await db.Employments.Where(e => e.PersonId == person).Select(e => e.Id).ToArrayAsync(cancellation)
            : [];

    /// <summary>A hire the user may see, or null.</summary>
    public static async Task<OpenHire?> FindAsync(Guid id, ClaimsPrincipal user, FidDb db, CancellationToken cancellation)
    {
        var visible = await VisibleAsync(user, db, cancellation);
        return (await OpenHires.LoadAsync(db, hires => visible(hires).Where(h => h.Id == id), cancellation)).SingleOrDefault();
    }
}
