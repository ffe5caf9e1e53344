using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Since when a record says all that pay is worked out from: it is paid with the first run whose cut-off is not before that. What is
/// corrected later does not delay it: by then it was paid as it stood.</summary>
public static class PayKnownSince
{
    /// <summary>By employment, since when there has been a value of every field that pay on the first day is worked out from; those of which one is
    /// missing are left out.</summary>
    public static async Task<Dictionary<Guid, Instant>> LoadAsync(FidDb db, IReadOnlyCollection<Guid> employments, CancellationToken cancellation)
    {
        var rows = await db
            .Employments.AsNoTracking()
            .Where(e => employments.Contains(e.Id))
            .Join(db.RecordValues.Where(v => PayReading.Fields.Contains(v.Field)), e => e.Id, v => v.OwnerId, (e, v) => new { e.Start, Value = v })
            .Where(r => r.Value.Effective.Contains(r.Start))
            .Select(r => r.Value)
            .ToListAsync(cancellation);
        return rows.GroupBy(r => r.OwnerId)
            .Select(stint => (stint.Key, Since: stint.GroupBy(r => r.Field).Select(Of).ToArray()))
            .Where(s => s.Since.Length == PayReading.Fields.Length && s.Since.All(i => i is not null))
            .ToDictionary(s => s.Key, s => s.Since.Max()!.Value);
    }

    // Back to where there was none; null where there is none now.
    private static Instant? Of(IEnumerable<RecordValue> ofField)
    {
        Instant? since = null;
        foreach (var row in ofField.OrderByDescending(r => r.Known.LowerBound))
        {
            if (since is null ? !row.Known.UpperBoundInfinite : row.Known.UpperBound != since)
                break;
            since = row.Known.LowerBound;
        }
        return since;
    }
}
