using System.Text.Json;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Fields;

/// <summary>The records of everybody who works here or will, as they are shown today.</summary>
public sealed class ActiveRecords
{
    private ActiveRecords(Dictionary<Guid, ActiveRecord> records) => Records = records;

    /// <summary>The records by employment.</summary>
    public IReadOnlyDictionary<Guid, ActiveRecord> Records { get; }

    /// <summary>Reads them in one go: all, or of some people, or some of their fields.</summary>
    /// <param name="on">The day whose values are read; left out, today, or the first day of those who have not started.</param>
    /// <param name="former">Whether those who have left are read too.</param>
    /// <param name="only">The employments to read; null for all.</param>
    /// <param name="fields">The fields to read; null for all.</param>
    public static async Task<ActiveRecords> LoadAsync(
        FidDb db,
        LocalDate today,
        CancellationToken cancellation,
        LocalDate? on = null,
        bool former = false,
        Guid[]? only = null,
        string[]? fields = null
    )
    {
        var (all, whole, ids, keys) = (only is null, fields is null, only ?? [], fields ?? []);
        var people = await db
            .Employments.AsNoTracking()
            .Where(e => (all || ids.Contains(e.Id)) && (former || e.End == null || e.End >= today))
            .Select(e => new { e.Id, e.Start })
            .ToListAsync(cancellation);
        var records = people.ToDictionary(
            p => p.Id,
            p => new ActiveRecord(on ?? LocalDate.Max(today, p.Start), new Dictionary<string, JsonElement>(40, StringComparer.Ordinal))
        );
        var rows = db
            .Database.SqlQuery<Row>(
                $"""
                select e.id as employment, v.field || coalesce('@' || v.row_id, '') as field, v.value
                from employments e join record_values v on v.owner_id = e.id
                where ({all} or e.id = any({ids})) and ({whole} or v.field = any({keys})) and ({former} or "end" is null or "end" >= {today})
                  and upper_inf(v.known) and v.effective @> coalesce({on}, greatest({today}, e.start))
                union all
                select e.id, v.field || coalesce('@' || v.row_id, ''), v.value from employments e join record_values v on v.owner_id = e.person_id
                where ({all} or e.id = any({ids})) and ({whole} or v.field = any({keys})) and ({former} or "end" is null or "end" >= {today})
                  and upper_inf(v.known) and v.effective @> coalesce({on}, greatest({today}, e.start))
                """
            )
            .AsAsyncEnumerable();
        await foreach (var row in rows.WithCancellation(cancellation))
            if (records.TryGetValue(row.Employment, out var record))
                ((Dictionary<string, JsonElement>)record.Values)[row.Field] = row.Value;
        return new ActiveRecords(records);
    }

    private sealed record Row(Guid Employment, string Field, JsonElement Value);
}

/// <summary>A record as it is shown.</summary>
/// <param name="AsOf">The day it is shown for.</param>
/// <param name="Values">Its values by field.</param>
public sealed record ActiveRecord(LocalDate AsOf, IReadOnlyDictionary<string, JsonElement> Values);
