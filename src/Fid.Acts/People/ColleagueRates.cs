using System.Text.Json;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>What others with the same job at the same site are paid.</summary>
public static class ColleagueRates
{
    private const int MostColleagues = 200;

    /// <summary>Their pay for a full-time year, ascending, of those whose pay the reader may see; empty where they may not see that of anybody.</summary>
    /// <param name="employment">Who is not counted.</param>
    /// <param name="job">The code of the job.</param>
    /// <param name="site">The code of the site; null for whichever.</param>
    public static async Task<decimal[]> LoadAsync(
        FidDb db,
        Reader reader,
        PayReading pay,
        Guid employment,
        string job,
        string? site,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        if (!PayReading.Fields.All(reader.Sees) || !reader.Sees("job"))
            return [];
        var here = reader.Sees("site") ? site : null;
        var holders = reader
            .Readable(db.CurrentRecords)
            .Where(r => r.JobCode == job && r.EmploymentId != employment && (here == null || r.SiteCode == here))
            .OrderBy(r => r.EmploymentId)
            .Take(MostColleagues)
            .Select(r => r.EmploymentId);
        var rows = await db
            .RecordValues.AsNoTracking()
            .Where(v => holders.Contains(v.OwnerId) && PayReading.Fields.Contains(v.Field) && v.Known.UpperBoundInfinite && v.Effective.Contains(today))
            .Select(v => new
            {
                v.OwnerId,
                v.Field,
                v.Value,
            })
            .ToListAsync(cancellation);
        return
        [
            .. rows.GroupBy(r => r.OwnerId)
                .Select(person => pay.Rate(person.ToDictionary(r => r.Field, r => (JsonElement?)r.Value))?.FullTimeAnnual)
                .OfType<decimal>()
                .Order(),
        ];
    }
}
