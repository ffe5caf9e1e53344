using System.Text.Json;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>The values that records show: those believed now that are true on the day each record is shown for.</summary>
public static class ShownValues
{
    /// <summary>Reads them, by employment and field.</summary>
    public static async Task<ILookup<Guid, KeyValuePair<string, JsonElement>>> LoadAsync(FidDb db, Guid[] employments, CancellationToken cancellation) =>
        (
            await db
                .Database.SqlQuery<Row>(
                    $"""
                    select r.employment_id as record, v.field || coalesce('@' || v.row_id, '') as field, v.value from records_now r
                    cross join lateral (values (r.employment_id), (r.person_id)) o(id) join record_values v on v.owner_id = o.id
                    where r.employment_id = any({employments}) and upper_inf(v.known) and v.effective @> r.as_of
                    """
                )
                .ToListAsync(cancellation)
        ).ToLookup(r => r.Record, r => KeyValuePair.Create(r.Field, r.Value));

    /// <summary>The values of one record, by field, with where each came from.</summary>
    public static Task<Dictionary<string, RecordValue>> OfAsync(FidDb db, Employment employment, LocalDate today, CancellationToken cancellation)
    {
        var asOf = RecordProjection.AsOf(employment, today);
        return db
            .RecordValues.AsNoTracking()
            .Where(v => (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && v.Known.UpperBoundInfinite && v.Effective.Contains(asOf))
            .ToDictionaryAsync(v => v.Address, cancellation);
    }

    private sealed record Row(Guid Record, string Field, JsonElement Value);
}
