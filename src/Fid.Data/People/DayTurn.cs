using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Data.People;

/// <summary>Lets values entered beforehand take effect: brings the projection of every record to today in which something began or
/// ended since it was last projected.</summary>
public sealed class DayTurn(FidDb db, RecordWriter records)
{
    // Files that were given and never saved with a record, a task or a template.
    private Task<int> DropUnnamedAsync(Instant at, CancellationToken cancellation) => db.Database.ExecuteSqlAsync($"""
        delete from stored_files f where f.at < {at - Duration.FromDays(1)}
          and not exists (select from record_values v where v.value #>> array[]::text[] = f.id::text and length(v.value #>> array[]::text[]) = 36)
          and not exists (select from hire_tasks t where f.id = any(t.attachments))
          and not exists (
            select from (select spec::text as said from template_versions union all select spec::text from template_drafts union all select properties::text from shared_tasks) t
            where t.said like '%' || f.id || '%')
        """, cancellation);

    /// <summary>Brings records to a day, and says how many. It may be run as often as one likes, by several servers at once.</summary>
    public async Task<int> ToAsync(LocalDate today, Instant at, CancellationToken cancellation)
    {
        var due = await db.Database.SqlQuery<Guid>($"""
            select r.employment_id as "Value" from records_now r where r.as_of < {today} and exists (
              select 1 from record_values v where v.owner_id in (r.employment_id, r.person_id) and upper_inf(v.known)
                and ((lower(v.effective) > r.as_of and lower(v.effective) <= {today}) or (upper(v.effective) > r.as_of and upper(v.effective) <= {today})))
            """).ToListAsync(cancellation);
        foreach (var id in due)
        {
            await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
            await records.LockAsync(id, cancellation);
            var employment = await db.Employments.SingleAsync(e => e.Id == id, cancellation);
            var record = await db.RecordsNow.SingleAsync(r => r.EmploymentId == id, cancellation);
            await records.RefreshAsync(employment, record, at, today, cancellation);
            await db.SaveChangesAsync(cancellation);
            await transaction.CommitAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        await DropUnnamedAsync(at, cancellation);
        return due.Count;
    }
}
