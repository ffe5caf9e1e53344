using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>Makes many people of some: each copy has the record of somebody with another's given name, born earlier, and a number, a badge
/// and an address of its own.</summary>
internal static class DemoCrowd
{
    private const int Batch = 500;

    /// <summary>Adds copies of all who are there. What each holds is written set-based, as an import would; what is read of it is worked out
    /// as a save would.</summary>
    /// <param name="count">How many.</param>
    /// <param name="firstNumber">The employee number of the first; the others follow.</param>
    /// <param name="firstBadge">The badge of the first; the others follow.</param>
    public static async Task AddAsync(FidDb db, int count, int firstNumber, int firstBadge, LocalDate today, Instant at)
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            create temporary table crowd on commit drop as
            with originals as (
              select e.id, e.person_id, e.start, c.id as change_id, row_number() over (order by e.number::int) - 1 as place, count(*) over () as all_of_them,
                     (select v.value from record_values v where v.owner_id = e.person_id and v.field = 'given_name') as given
              from employments e join changes c on c.subject_id = e.id
            )
            select gen_random_uuid() as id, gen_random_uuid() as person_id, gen_random_uuid() as change_id, o.id as of_id, o.person_id as of_person,
              o.change_id as of_change, o.start,
                   k as round, other.given, row_number() over (order by k, o.place) - 1 as place
            from generate_series(1, {count} / (select count(*) from originals) + 1) k cross join originals o
            join originals other on other.place = (o.place + k * 37) % o.all_of_them
            order by k, o.place limit {count}
            """
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            insert into people (id) select person_id from crowd;
            insert into employments (id, person_id, number, start) select id, person_id, ({firstNumber} + place)::text, start from crowd;
            insert into changes (id, at, by_id, by_name, origin, action, why, subject_id, part, details)
            select w.change_id, c.at, c.by_id, c.by_name, c.origin, c.action, c.why, w.id, c.part, c.details from crowd w join changes c on c.id = w.of_change;
            insert into record_values (id, owner_id, owner_kind, row_id, field, value, source, effective, known, change_id)
            select gen_random_uuid(), case v.owner_id when w.of_person then w.person_id else w.id end, v.owner_kind, v.row_id, v.field,
                   case v.field
                     when 'given_name' then w.given
                     when 'email' then to_jsonb('p' || ({firstNumber} + w.place) || '@halyard.example')
                     when 'badge' then to_jsonb(lpad(({firstBadge} + w.place)::text, 6, '0'))
                     when 'birth_date' then to_jsonb(((v.value #>> array[]::text[])::date - w.round::int * 131)::text)
                     else v.value
                   end, v.source, v.effective, v.known, w.change_id
            from crowd w join record_values v on v.owner_id in (w.of_id, w.of_person);
            """
        );
        var copies = await db.Database.SqlQuery<Guid>($"""select id as "Value" from crowd order by place""").ToListAsync();
        var fields = await new LiveFieldsLoader(db).LiveAsync(default);
        foreach (var (batch, done) in copies.Chunk(Batch).Select((b, i) => (b, (i + 1) * Batch)))
        {
            var employments = await db.Employments.AsNoTracking().Where(e => batch.Contains(e.Id)).ToListAsync();
            var people = employments.ToDictionary(e => e.PersonId, e => e.Id);
            var owners = batch.Concat(people.Keys).ToArray();
            var held = (
                await db
                    .RecordValues.AsNoTracking()
                    .Where(v => owners.Contains(v.OwnerId))
                    .Select(v => new
                    {
                        v.OwnerId,
                        v.Field,
                        v.RowId,
                        v.Value,
                    })
                    .ToListAsync()
            ).ToLookup(v => people.GetValueOrDefault(v.OwnerId, v.OwnerId));
            foreach (var employment in employments)
            {
                var record = new CurrentRecord { EmploymentId = employment.Id, PersonId = employment.PersonId };
                RecordProjection.Project(
                    fields,
                    record,
                    held[employment.Id].ToDictionary(v => FieldAddress.Of(v.Field, v.RowId), v => v.Value),
                    employment,
                    at,
                    today
                );
                db.CurrentRecords.Add(record);
            }
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
            if (done % 5000 == 0)
                Console.WriteLine($"  {done} of {copies.Count} more people");
        }
    }
}
