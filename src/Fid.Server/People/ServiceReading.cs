using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.People;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Since when somebody belongs to the firm, over all their stints, and until when they are on probation.</summary>
internal static class ServiceReading
{
    /// <summary>Null for those who may not see from when to when somebody worked, or may not open the record of one of the stints.</summary>
    /// <param name="values">What the reader sees of the record.</param>
    /// <param name="bridgeDays">The longest break that does not interrupt service.</param>
    public static async Task<ServiceResponse?> LoadAsync(
        FidDb db,
        Reader reader,
        ReadRecord read,
        IReadOnlyDictionary<string, JsonElement?> values,
        int bridgeDays,
        CancellationToken cancellation
    )
    {
        var employment = read.Employment;
        // What never was, counts for nothing.
        var stints = (await db.Employments.AsNoTracking().Where(e => e.PersonId == employment.PersonId).ToListAsync(cancellation)).FindAll(e =>
            !e.Stint.NeverWas
        );
        var records = await reader.Readable(db.CurrentRecords.AsNoTracking()).Where(r => r.PersonId == employment.PersonId).ToListAsync(cancellation);
        var seen = records
            .Where(r => reader.On(r) is var rights && rights.Sees("start_date") && rights.Sees("end_date"))
            .Select(r => r.EmploymentId)
            .ToHashSet();
        if (stints.Exists(s => !seen.Contains(s.Id)))
            return null;
        return ServiceDates.Of([.. stints.Select(s => (s.Start, s.End))], bridgeDays).Answer is { } service
            ? new ServiceResponse(service.OriginalHire, service.LastHire, service.AdjustedService, values.Day("probation_end"))
            : null;
    }
}

/// <summary>Since when somebody belongs to the firm.</summary>
/// <param name="OriginalHire">The first day of their first stint.</param>
/// <param name="LastHire">The first day of their last one.</param>
/// <param name="AdjustedService">The day from which service counts: earlier stints are in it, as far as the breaks are bridged.</param>
/// <param name="ProbationEnd">The last day of probation; null where the record says none, or it is not seen.</param>
public sealed record ServiceResponse(LocalDate OriginalHire, LocalDate LastHire, LocalDate AdjustedService, LocalDate? ProbationEnd);
