using System.Security.Claims;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Hires;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Whose record somebody may open: coordinators, administrators and payroll everybody's, managers that of those who
/// report to them. What of it they see is for the fields to say.</summary>
internal static class RecordAccess
{
    /// <summary>A record the user may open, or null.</summary>
    /// <param name="tracked">Whether it is to be changed.</param>
    public static async Task<(Employment Employment, RecordNow Record)?> FindAsync(ClaimsPrincipal user, FidDb db, Guid id, bool tracked, CancellationToken cancellation)
    {
        var (employments, records) = tracked ? (db.Employments, db.RecordsNow) : (db.Employments.AsNoTracking(), db.RecordsNow.AsNoTracking());
        if (await employments.FirstOrDefaultAsync(e => e.Id == id, cancellation) is not { } employment) return null;
        var record = await records.SingleAsync(r => r.EmploymentId == id, cancellation);
        if (user.MayReadEverybody()) return (employment, record);
        var own = await HireAccess.EmploymentsOfAsync(user, db, cancellation);
        return record.ManagerId is { } manager && own.Contains(manager) ? (employment, record) : null;
    }
}
