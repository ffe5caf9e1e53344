using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Who worked here on a day, and as what: from the values, since the projection knows the present alone.</summary>
public static class PeopleAsOf
{
    private static readonly string[] Names = ["given_name", "family_name"];
    private static readonly string[] Work = ["job", "department", "site"];

    /// <summary>A page of those who were employed on a day, as is believed now, in the order of their names of today; where a person's
    /// name of then is not known, that of now is told.</summary>
    /// <param name="words">Words, folded, each of which begins a word of the name they had then or have now, or stands in the number.</param>
    /// <param name="byName">Whether they are found and ordered by name; otherwise by number.</param>
    /// <param name="among">The employments among which they are looked for; null for all.</param>
    /// <param name="after">The employment to go on after; null for the first page.</param>
    public static async Task<List<PersonAsOf>> PageAsync(
        FidDb db,
        LocalDate day,
        string[] words,
        bool byName,
        Guid[]? among,
        Guid? after,
        int size,
        CancellationToken cancellation
    )
    {
        var patterns = words.Select(w => $"% {LikePattern.Escape(w)}%").ToArray();
        var (fromTheFirst, ofAll, only) = (after is null, among is null, among ?? []);
        // First who stands on the page, by an index; then what they were, for these alone.
        return await db
            .Database.SqlQuery<PersonAsOf>(
                $"""
                with page as (
                  select e.id, e.person_id, e.number, e.start, r.given_name, r.family_name from records_now r join employments e on e.id = r.employment_id
                  where e.start <= {day} and (e."end" is null or e."end" >= {day})
                    and ({ofAll} or e.id = any({only})) and ({fromTheFirst} or case when {byName} then (r.family_name, r.given_name, r.employment_id)
                        > (select family_name, given_name, employment_id from records_now where employment_id = {after})
                      else e.number > (select number from employments where id = {after}) end)
                    and ({words.Length == 0} or case when {byName} then ' ' || r.search like all({patterns}) or exists (
                        select from record_values v where v.owner_id = e.person_id and v.field = any({Names}) and v.effective @> {day}
                          and upper_inf(v.known) and ' ' || lower(v.value #>> array[]::text[]) like any({patterns}))
                      else e.number = any({words}) end)
                  order by case when {byName} then r.family_name end, case when {byName} then r.given_name end, case when {byName} then r.employment_id end,
                    e.number limit {size})
                select p.id as employment_id, p.number, p.start, coalesce(n.given_name, p.given_name) as given_name, coalesce(n.family_name, p.family_name)
                  as family_name, w.job, w.department, w.site
                from page p left join lateral (
                  select max(value #>> array[]::text[]) filter (where field = 'given_name') as given_name, max(value #>> array[]::text[]) filter (where field
                    = 'family_name') as family_name
                  from record_values where owner_id = p.person_id and field = any({Names}) and effective @> {day} and upper_inf(known)) n on true
                left join lateral (
                  select max(value #>> array[]::text[]) filter (where field = 'job') as job, max(value #>> array[]::text[]) filter (where field =
                    'department') as department,
                    max(value #>> array[]::text[]) filter (where field = 'site') as site
                  from record_values where owner_id = p.id and field = any({Work}) and effective @> {day} and upper_inf(known)) w on true
                order by case when {byName} then p.family_name end, case when {byName} then p.given_name end, case when {byName} then p.id end, p.number
                """
            )
            .ToListAsync(cancellation);
    }
}

/// <summary>Somebody as they were on a day.</summary>
public sealed record PersonAsOf(
    Guid EmploymentId,
    string Number,
    LocalDate Start,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Department,
    string? Site
);
