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
        var both = await employments.Join(records, e => e.Id, r => r.EmploymentId, (employment, record) => new { employment, record }).FirstOrDefaultAsync(b => b.employment.Id == id, cancellation);
        if (both is not { employment: { } employment, record: { } record }) return null;
        return await MayOpenAsync(user, db, record, cancellation) ? (employment, record) : null;
    }

    /// <summary>Whether the user may open a record.</summary>
    public static async ValueTask<bool> MayOpenAsync(ClaimsPrincipal user, FidDb db, RecordNow record, CancellationToken cancellation) =>
        user.MayReadEverybody() || (record.ManagerId is { } manager && (await HireAccess.EmploymentsOfAsync(user, db, cancellation)).Contains(manager));
}
