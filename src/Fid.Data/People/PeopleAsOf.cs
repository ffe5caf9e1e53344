using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Data.People;

/// <summary>Who worked here on a day, and as what: from the values, since the projection knows the present alone.</summary>
public static class PeopleAsOf
{
    private static readonly string[] Fields = ["given_name", "family_name", "job", "department", "site"];

    /// <summary>Everybody who was employed on a day, as is believed now, in no order. Where a person's name of then is not known, that of now.</summary>
    public static async Task<List<PersonAsOf>> ListAsync(FidDb db, LocalDate day, CancellationToken cancellation) =>
        await db.Database.SqlQuery<PersonAsOf>($"""
            select e.id as employment_id, e.number, e.start,
              coalesce(p.given_name, r.given_name) as given_name, coalesce(p.family_name, r.family_name) as family_name, w.job, w.department, w.site
            from employments e join records_now r on r.employment_id = e.id
            left join (
              select owner_id, max(value #>> array[]::text[]) filter (where field = 'given_name') as given_name, max(value #>> array[]::text[]) filter (where field = 'family_name') as family_name
              from record_values where field = any({Fields[..2]}) and effective @> {day} and upper_inf(known) group by owner_id) p on p.owner_id = e.person_id
            left join (
              select owner_id, max(value #>> array[]::text[]) filter (where field = 'job') as job, max(value #>> array[]::text[]) filter (where field = 'department') as department,
                max(value #>> array[]::text[]) filter (where field = 'site') as site
              from record_values where field = any({Fields[2..]}) and effective @> {day} and upper_inf(known) group by owner_id) w on w.owner_id = e.id
            where e.start <= {day} and (e."end" is null or e."end" >= {day})
            """).ToListAsync(cancellation);
}

/// <summary>Somebody as they were on a day.</summary>
public sealed record PersonAsOf(Guid EmploymentId, string Number, LocalDate Start, string GivenName, string FamilyName, string? Job, string? Department, string? Site)
{
    /// <summary>Name and number, for finding.</summary>
    public string Search => Core.Fields.TextRules.Fold($"{GivenName} {FamilyName} {GivenName} {Number}");
}
