using Fid.Core.Lists;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>The pay bands of all jobs, for those who ask about many people.</summary>
/// <param name="entries">Jobs and grades, by the key of their list; entries of other lists are passed over.</param>
/// <param name="fullTimeHours">The hours a week that are full time.</param>
internal sealed class JobBands(ILookup<string, EntryContent> entries, decimal fullTimeHours)
{
    private readonly Dictionary<string, EntryContent> _jobs = entries["jobs"].ToDictionary(j => j.Code, StringComparer.Ordinal);
    private readonly Dictionary<string, EntryContent> _grades = entries["grades"].ToDictionary(g => g.Code, StringComparer.Ordinal);

    /// <summary>The hours a week that are full time.</summary>
    public decimal FullTimeHours => fullTimeHours;

    public static async Task<JobBands> LoadAsync(FidDb db, decimal fullTimeHours, CancellationToken cancellation) =>
        new(
            (await db.ListEntries.AsNoTracking().Where(e => e.List == "jobs" || e.List == "grades").OrderBy(e => e.Id).ToListAsync(cancellation)).ToLookup(
                e => e.List,
                e => e.Content()
            ),
            fullTimeHours
        );

    /// <summary>The band that holds for a job on a day; null where there is no such job, it has no grade, or its grade no band on that day.</summary>
    /// <param name="job">The job's code.</param>
    public JobBand? Of(string? job, LocalDate day) =>
        job is not null && _jobs.GetValueOrDefault(job) is { } held && held.Text("grade") is { } grade && _grades.GetValueOrDefault(grade) is { } graded
            ? JobBand.Of(held, graded, day, fullTimeHours)
            : null;
}
