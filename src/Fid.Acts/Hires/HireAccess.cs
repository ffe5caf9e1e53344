using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Hires;

/// <summary>Which hires a user may see whole.</summary>
public static class HireAccess
{
    public static Task<Func<IQueryable<Hire>, IQueryable<Hire>>> VisibleAsync(Actor actor, FidDb db, CancellationToken cancellation) =>
        ReachedHires.NarrowAsync(actor, db, Actions.See, Things.Hire, cancellation);

    /// <summary>A hire the user may see, or null.</summary>
    public static async Task<HireUnderWay?> FindAsync(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var visible = await VisibleAsync(actor, db, cancellation);
        return (await HiresUnderWay.LoadAsync(db, hires => visible(hires).Where(h => h.Id == id), cancellation)).SingleOrDefault();
    }

    /// <summary>The same, also of a newcomer who has settled: what is past can be looked back at.</summary>
    public static async Task<HireUnderWay?> FindPastTooAsync(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var visible = await VisibleAsync(actor, db, cancellation);
        return (await HiresUnderWay.OfAsync(db, visible(db.Hires).Where(h => h.Id == id && h.Outcome == null), cancellation)).SingleOrDefault();
    }
}
