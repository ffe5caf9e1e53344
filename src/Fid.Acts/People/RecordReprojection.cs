using Fid.Acts.Fields;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Brings what is read of every record without looking at its values up to fields, roles and groups that became live.</summary>
internal static class RecordReprojection
{
    // Whole records: of more at once the values of a large firm would fill the memory.
    private const int CountedAtOnce = 5_000;

    /// <summary>Counts anew what is filled and missing of every record, and finds the groups it is in.</summary>
    public static async Task DoAsync(FidDb db, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        // Those who left too: their records go on being shown.
        var records = await db.CurrentRecords.OrderBy(r => r.EmploymentId).Select(r => new { r.EmploymentId, r.AsOf }).ToListAsync(cancellation);
        foreach (var some in records.Chunk(CountedAtOnce))
        {
            var held = await ShownValues.LoadAsync(db, [.. some.Select(r => r.EmploymentId)], cancellation);
            var batch = some.AsParallel()
                .WithCancellation(cancellation)
                .Select(r => (Key: r.EmploymentId, Values: held[r.EmploymentId].ToDictionary(), r.AsOf))
                .Select(r => (r.Key, Count: Completeness.Count(fields.Set, r.Values, r.AsOf), Groups: fields.Roles.GroupsOf(r.Values, r.AsOf)))
                .ToArray();
            // Missing fields go as one text each: PostgreSQL has no arrays of arrays of different lengths.
            var (ids, filled, of, missing, groups) = (
                batch.Select(b => b.Key).ToArray(),
                batch.Select(b => b.Count.Filled).ToArray(),
                batch.Select(b => b.Count.Of).ToArray(),
                batch.Select(b => string.Join(' ', b.Count.Missing)).ToArray(),
                batch.Select(b => string.Join(' ', b.Groups)).ToArray()
            );
            await db.Database.ExecuteSqlAsync(
                $"""
                update records_now r set filled = c.filled, "of" = c.total, missing = string_to_array(c.missing, ' '),
                  groups = string_to_array(c.groups, ' ')
                from unnest({ids}, {filled}, {of}, {missing}, {groups}) c(id, filled, total, missing, groups) where r.employment_id = c.id
                """,
                cancellation
            );
        }
    }
}
