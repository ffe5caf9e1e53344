using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Whose record somebody may open. What of it they see is for <see cref="Reader"/> to say.</summary>
public static class RecordAccess
{
    /// <summary>A record the user may open, or null.</summary>
    /// <param name="tracked">Whether it is to be changed.</param>
    public static async Task<(Employment Employment, CurrentRecord Record)?> FindAsync(
        Actor actor,
        FidDb db,
        Guid id,
        bool tracked,
        CancellationToken cancellation
    )
    {
        var (employments, records) = tracked ? (db.Employments, db.CurrentRecords) : (db.Employments.AsNoTracking(), db.CurrentRecords.AsNoTracking());
        var both = await employments
            .Join(records, e => e.Id, r => r.EmploymentId, (employment, record) => new { employment, record })
            .FirstOrDefaultAsync(b => b.employment.Id == id, cancellation);
        if (both is not { employment: { } employment, record: { } record })
            return null;
        return await MayOpenAsync(actor, db, record, cancellation) ? (employment, record) : null;
    }

    /// <summary>Whether the user may open a record.</summary>
    public static async ValueTask<bool> MayOpenAsync(Actor actor, FidDb db, CurrentRecord record, CancellationToken cancellation) =>
        await MayAsync(actor, db, Actions.See, record, cancellation);

    /// <summary>Whether the user may do something with a record.</summary>
    public static async ValueTask<bool> MayAsync(Actor actor, FidDb db, string action, CurrentRecord record, CancellationToken cancellation) =>
        actor.Rights.MayToAll(action, Things.Record) || (await ActorReach.OfAsync(actor, db, cancellation)).May(action, Things.Record, record);
}
