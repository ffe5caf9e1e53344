using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Lets values entered beforehand take effect: brings the projection of every record to today in which something began or
/// ended since it was last projected.</summary>
public sealed class TurnDay(FidDb db, RecordWriter records)
{
    /// <summary>Brings records to the actor's today, and says how many. It may be done as often as one likes, by several servers at
    /// once: the first to come turns the day, the others find it turned. Days on which no server ran are caught up together: what
    /// began on any of them has begun.</summary>
    public async Task<ActResult<int>> DoAsync(TurnDayRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        var (today, at) = (actor.Today, actor.Clock.Now);
        if (await db.Firms.AsNoTracking().FirstOrDefaultAsync(cancellation) is not { } firm || firm.TurnedOn >= today)
            return 0;
        var due = await DueAsync(firm.TurnedOn, today, cancellation);
        foreach (var id in due)
        {
            await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
            await Locks.RecordAsync(db, id, cancellation);
            var employment = await db.Employments.SingleAsync(e => e.Id == id, cancellation);
            var record = await db.CurrentRecords.SingleAsync(r => r.EmploymentId == id, cancellation);
            // Another server may have come first.
            if (record.AsOf < today)
            {
                await records.RefreshAsync(employment, record, at, today, cancellation);
                await db.SaveChangesAsync(cancellation);
                await transaction.CommitAsync(cancellation);
            }
            db.ChangeTracker.Clear();
        }
        // Last: a server that dies before leaves the day to be turned again.
        await db.Firms.Where(f => f.TurnedOn == null || f.TurnedOn < today).ExecuteUpdateAsync(s => s.SetProperty(f => f.TurnedOn, today), cancellation);
        return due.Count;
    }

    // The records of which something begins or ends after the day turned last; on the first turn all are looked at.
    private Task<List<Guid>> DueAsync(LocalDate? turned, LocalDate today, CancellationToken cancellation) =>
        turned is { } since
            ? db
                .Database.SqlQuery<Guid>(
                    $"""
                    with moved as (
                      select owner_id from record_values where upper_inf(known) and lower(effective) > (lower(known) at time zone 'UTC')::date
                        and lower(effective) > {since} and lower(effective) <= {today}
                      union select owner_id from record_values where upper_inf(known) and not upper_inf(effective) and upper(effective) > {since}
                        and upper(effective) <= {today})
                    select r.employment_id as "Value" from moved m join records_now r on r.employment_id = m.owner_id where r.as_of < {today}
                    union select r.employment_id from moved m join records_now r on r.person_id = m.owner_id where r.as_of < {today}
                    """
                )
                .ToListAsync(cancellation)
            : db
                .Database.SqlQuery<Guid>(
                    $"""
                    select r.employment_id as "Value" from records_now r where r.as_of < {today} and exists (
                      select 1 from record_values v where v.owner_id in (r.employment_id, r.person_id) and upper_inf(v.known)
                        and ((lower(v.effective) > r.as_of and lower(v.effective) <= {today}) or (upper(v.effective) > r.as_of and upper(v.effective) <=
                          {today})))
                    """
                )
                .ToListAsync(cancellation);
}

public sealed record TurnDayRequest;
