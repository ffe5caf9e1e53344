using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Hires;

/// <summary>Which hires a user may see whole.</summary>
public static class HireAccess
{
    public static async Task<Func<IQueryable<Hire>, IQueryable<Hire>>> VisibleAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (actor.Rights.MayToAll(Actions.See, Things.Hire))
            return hires => hires;
        var reached = (await ActorReach.OfAsync(actor, db, cancellation)).Within(db.CurrentRecords, actor.Rights.Where(Actions.See, Things.Hire));
        return hires => hires.Where(h => reached.Any(r => r.EmploymentId == h.EmploymentId));
    }

    /// <summary>A hire the user may see, or null.</summary>
    public static async Task<HireUnderWay?> FindAsync(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var visible = await VisibleAsync(actor, db, cancellation);
        return (await HiresUnderWay.LoadAsync(db, hires => visible(hires).Where(h => h.Id == id), cancellation)).SingleOrDefault();
    }
}
