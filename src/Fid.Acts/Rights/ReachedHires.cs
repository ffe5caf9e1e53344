using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>Hires of people with whose things an actor may do something.</summary>
public static class ReachedHires
{
    /// <summary>What narrows hires to those.</summary>
    public static async Task<Func<IQueryable<Hire>, IQueryable<Hire>>> NarrowAsync(
        Actor actor,
        FidDb db,
        string action,
        string thing,
        CancellationToken cancellation
    )
    {
        if (actor.Rights.MayToAll(action, thing))
            return hires => hires;
        var reached = (await ActorReach.OfAsync(actor, db, cancellation)).Within(db.CurrentRecords, actor.Rights.Where(action, thing));
        return hires => hires.Where(h => reached.Any(r => r.EmploymentId == h.EmploymentId));
    }

    /// <summary>Those of some hires with which themselves something may be done, by their ids: for what touches many at a time.</summary>
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
        var narrow = await NarrowAsync(actor, db, action, Things.Hire, cancellation);
        return (await narrow(db.Hires.Where(h => hires.Contains(h.Id))).Select(h => h.Id).ToListAsync(cancellation)).ToHashSet();
    }
}
