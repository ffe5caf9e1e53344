using Fid.Core.Lists;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Lists;

/// <summary>Who manages whoever comes to a place in the firm.</summary>
public sealed class ManagerFinder(FidDb db)
{
    private List<EntryContent>? _seats;
    private List<Holder>? _holders;
    private Dictionary<string, Guid>? _heads;

    /// <summary>The employment of whoever holds, on a day, the seat that the seat of a job in a department reports to; null where there
    /// is no such seat, or nobody or more than one person holds it.</summary>
    public async Task<Guid?> BySeatAsync(string? job, string? department, LocalDate on, CancellationToken cancellation)
    {
        if (job is null || department is null)
            return null;
        _seats ??= (await db.ListEntries.AsNoTracking().Where(e => e.List == "seats" && !e.Retired).ToListAsync(cancellation)).ConvertAll(e => e.Content());
        var above = _seats.FirstOrDefault(s => s.Text("job") == job && s.Text("department") == department)?.Text("reports_to");
        if (_seats.FirstOrDefault(s => s.Code == above) is not { } seat)
            return null;
        _holders ??= await HoldersAsync(_seats, cancellation);
        var holders = _holders
            .Where(h => h.Job == seat.Text("job") && h.Department == seat.Text("department") && (h.End is null || h.End >= on))
            .Take(2)
            .ToList();
        return holders is [var one] ? one.Id : null;
    }

    /// <summary>The employment of whoever leads a department on a day; null for nobody.</summary>
    public async Task<Guid?> HeadAsync(EntryContent? department, LocalDate on, CancellationToken cancellation)
    {
        if (department?.Parts<HeadFrom>("heads").Where(h => h.From <= on).MaxBy(h => h.From)?.Person is not { } number)
            return null;
        _heads ??= await HeadsAsync(cancellation);
        return _heads.TryGetValue(number, out var head) ? head : null;
    }

    // Whoever holds a seat that others report to: few of all, read once for all that are asked about.
    private async Task<List<Holder>> HoldersAsync(List<EntryContent> seats, CancellationToken cancellation)
    {
        var above = seats.Select(s => s.Text("reports_to")).OfType<string>().ToHashSet(StringComparer.Ordinal);
        var led = seats.Where(s => above.Contains(s.Code)).ToList();
        var (jobs, departments) = (led.ConvertAll(s => s.Text("job")), led.ConvertAll(s => s.Text("department")));
        return await db
            .CurrentRecords.Where(r => jobs.Contains(r.JobCode) && departments.Contains(r.DepartmentCode))
            .Join(db.Employments, r => r.EmploymentId, e => e.Id, (r, e) => new Holder(r.EmploymentId, r.JobCode, r.DepartmentCode, e.End))
            .ToListAsync(cancellation);
    }

    private async Task<Dictionary<string, Guid>> HeadsAsync(CancellationToken cancellation)
    {
        var numbers = (await db.ListEntries.AsNoTracking().Where(e => e.List == "departments").ToListAsync(cancellation))
            .SelectMany(e => e.Content().Parts<HeadFrom>("heads"))
            .Select(h => h.Person)
            .Distinct()
            .ToList();
        return await db.Employments.Where(e => numbers.Contains(e.Number)).ToDictionaryAsync(e => e.Number, e => e.Id, cancellation);
    }

    private sealed record Holder(Guid Id, string? Job, string? Department, LocalDate? End);
}
