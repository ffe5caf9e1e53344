using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>A hire with its tasks, its stint and its record, tracked, and held against others who would change them.</summary>
public sealed record HireInHand(Hire Hire, Employment Employment, CurrentRecord Record)
{
    /// <summary>Takes a hire in hand that somebody may do something with; null where there is none such.</summary>
    internal static async Task<HireInHand?> TakeAsync(FidDb db, Actor actor, string action, Guid id, CancellationToken cancellation) =>
        await TakeAsync(db, id, cancellation) is { } hire && (await ActorReach.OfAsync(actor, db, cancellation)).May(action, Things.Hire, hire.Record)
            ? hire
            : null;

    /// <summary>Takes a hire in hand; null where there is none.</summary>
    internal static async Task<HireInHand?> TakeAsync(FidDb db, Guid id, CancellationToken cancellation)
    {
        if (await db.Hires.AsNoTracking().Where(h => h.Id == id).Select(h => (Guid?)h.EmploymentId).SingleOrDefaultAsync(cancellation) is not { } employment)
            return null;
        await Locks.RecordAsync(db, employment, cancellation);
        // What goes on by itself holds the hire alone: it changes its tasks meanwhile.
        await Locks.HiresAsync(db, [id], cancellation);
        return new HireInHand(
            await db.Hires.Include(h => h.Tasks).SingleAsync(h => h.Id == id, cancellation),
            await db.Employments.SingleAsync(e => e.Id == employment, cancellation),
            await db.CurrentRecords.SingleAsync(r => r.EmploymentId == employment, cancellation)
        );
    }
}
