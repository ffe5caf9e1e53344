using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>Which of some hires an actor may do something with: for what touches many at a time.</summary>
public static class ReachedHires
{
    /// <summary>Those of some hires, by their ids.</summary>
    public static async Task<IReadOnlySet<Guid>> AmongAsync(
        Actor actor,
        FidDb db,
        string action,
        IReadOnlyCollection<Guid> hires,
        CancellationToken cancellation
    )
    {
        if (hires.Count == 0 || actor.Rights.MayToAll(action, Things.Hire))
            return hires.ToHashSet();
        var reached = (await ActorReach.OfAsync(actor, db, cancellation)).Within(db.CurrentRecords, actor.Rights.Where(action, Things.Hire));
        return (
            await db.Hires.Where(h => hires.Contains(h.Id) && reached.Any(r => r.EmploymentId == h.EmploymentId)).Select(h => h.Id).ToListAsync(cancellation)
        ).ToHashSet();
    }
}
