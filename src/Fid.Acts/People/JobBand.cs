using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>The pay band of a job, for a full-time year.</summary>
/// <param name="Job">The job's code.</param>
/// <param name="Grade">The code of its grade.</param>
/// <param name="FurthestFromColleagues">How far from the middle of colleagues pay may lie without a reason, in percent; null for however far.</param>
public sealed record JobBand(string Job, string Grade, decimal Min, decimal Mid, decimal Max, decimal? FurthestFromColleagues)
{
    /// <summary>The job with a code; null for none.</summary>
    public static async Task<EntryContent?> JobAsync(FidDb db, string? code, CancellationToken cancellation) =>
        code is null ? null : (await db.ListEntries.AsNoTracking().Coded("jobs", code).FirstOrDefaultAsync(cancellation))?.Content();

    /// <summary>The band that holds on a day; null where the job has no grade, or its grade no band on that day.</summary>
    public static async Task<JobBand?> OfAsync(FidDb db, EntryContent? job, LocalDate day, decimal fullTimeHours, CancellationToken cancellation)
    {
        if (job?.Text("grade") is not { } code)
            return null;
        var grade = (await db.ListEntries.AsNoTracking().SingleOrDefaultAsync(e => e.List == "grades" && e.Code == code, cancellation))?.Content();
        return grade is null ? null : Of(job, grade, day, fullTimeHours);
    }

    /// <summary>The band of a job's grade that holds on a day; null where there is none on that day.</summary>
    public static JobBand? Of(EntryContent job, EntryContent grade, LocalDate day, decimal fullTimeHours)
    {
        if (grade.Parts<BandFrom>("bands").Where(b => b.From <= day).MaxBy(b => b.From) is not { } band)
            return null;
        // One stated per hour is compared as the pay of somebody full-time for a year.
        var times = band.Per == "hour" ? fullTimeHours * PayRate.WeeksPerYear : 1;
        return new JobBand(job.Code, grade.Code, band.Min * times, band.Mid * times, band.Max * times, grade.Number("furthest_from_colleagues"));
    }

    /// <summary>Where pay stands in it.</summary>
    /// <param name="pay">Pay for a full-time year.</param>
    public PayBand? Of(decimal pay) => PayBand.Of(pay, Min, Mid, Max).Answer;
}
