using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.FieldDrafts;

/// <summary>How many of those who work here, or will, have a value in each field: counted where the values are.</summary>
public static class FieldCoverage
{
    /// <summary>How many people there are, and how many of them have each field filled.</summary>
    /// <param name="among">The employments that are counted; null for all.</param>
    public static async Task<(int Active, Dictionary<string, int> Filled)> CountAsync(FidDb db, LocalDate today, Guid[]? among, CancellationToken cancellation)
    {
        var (ofAll, only) = (among is null, among ?? []);
        var active = await db.Employments.CountAsync(e => (e.End == null || e.End >= today) && (ofAll || only.Contains(e.Id)), cancellation);
        var filled = await db
            .Database.SqlQuery<Filled>(
                $"""
                select field as key, sum(count)::int as count from (
                  select v.field, count(*) as count from employments e join record_values v on v.owner_id = e.id
                  where (e."end" is null or e."end" >= {today}) and ({ofAll} or e.id = any({only}))
                    and upper_inf(v.known) and v.effective @> greatest({today}, e.start)
                    and v.row_id is null group by 1
                  union all
                  select v.field, count(*) from employments e join record_values v on v.owner_id = e.person_id
                  where (e."end" is null or e."end" >= {today}) and ({ofAll} or e.id = any({only}))
                    and upper_inf(v.known) and v.effective @> greatest({today}, e.start)
                    and v.row_id is null group by 1
                  union all
                  -- However many rows somebody has, it is one person. Whose a value is decides by what it is joined: asked of both at once,
                  -- each row would be held against each employment.
                  select split_part(v.field, '.', 1), count(distinct e.id) from employments e join record_values v on v.owner_id = e.id
                  where v.row_id is not null and (e."end" is null or e."end" >= {today}) and ({ofAll} or e.id = any({only}))
                    and upper_inf(v.known)
                    and v.effective @> greatest({today}, e.start) group by 1
                  union all
                  select split_part(v.field, '.', 1), count(distinct e.id) from employments e join record_values v on v.owner_id = e.person_id
                  where v.row_id is not null and (e."end" is null or e."end" >= {today}) and ({ofAll} or e.id = any({only}))
                    and upper_inf(v.known)
                    and v.effective @> greatest({today}, e.start) group by 1) counted
                group by 1
                """
            )
            .ToDictionaryAsync(f => f.Key, f => f.Count, cancellation);
        return (active, filled);
    }

    private sealed record Filled(string Key, int Count);
}
