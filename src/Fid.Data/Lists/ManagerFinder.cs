using Fid.Core.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Data.Lists;

/// <summary>Who manages whoever comes to a place in the firm.</summary>
public sealed class ManagerFinder(FidDb db)
{
    private List<EntryContent>? _seats;

    /// <summary>The employment of whoever holds, on a day, the seat that the seat of a job in a department reports to; null where there
    /// is no such seat, or nobody or more than one person holds it.</summary>
    public async Task<Guid?> BySeatAsync(string? job, string? department, LocalDate on, CancellationToken cancellation)
    {
        if (job is null || department is null) return null;
        _seats ??= (await db.ListEntries.AsNoTracking().Where(e => e.List == "seats" && !e.Retired).ToListAsync(cancellation)).ConvertAll(e => e.Content());
        var above = _seats.FirstOrDefault(s => s.Text("job") == job && s.Text("department") == department)?.Text("reports_to");
        if (_seats.FirstOrDefault(s => s.Code == above) is not { } seat) return null;
        var (aboveJob, aboveDepartment) = (seat.Text("job"), seat.Text("department"));
        var holders = await db.RecordsNow
            .Where(r => r.JobCode == aboveJob && r.DepartmentCode == aboveDepartment && db.Employments.Any(e => e.Id == r.EmploymentId && (e.End == null || e.End >= on)))
            .Select(r => r.EmploymentId).Take(2).ToListAsync(cancellation);
        return holders is [var one] ? one : null;
    }

    /// <summary>The employment of whoever leads a department on a day; null for nobody.</summary>
    public async Task<Guid?> HeadAsync(EntryContent? department, LocalDate on, CancellationToken cancellation)
    {
        var number = department?.Parts<HeadFrom>("heads").Where(h => h.From <= on).MaxBy(h => h.From)?.Person;
        return number is null ? null : await db.Employments.Where(e => e.Number == number).Select(e => (Guid?)e.Id).FirstOrDefaultAsync(cancellation);
    }
}
