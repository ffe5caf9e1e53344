using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Which hires a user may see whole: coordinators, administrators and payroll all, managers their own newcomers.</summary>
public static class HireAccess
{
    public static async Task<Func<IQueryable<Hire>, IQueryable<Hire>>> VisibleAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (actor.MayReadEverybody)
            return hires => hires;
        var employments = await OwnEmployments.OfAsync(actor, db, cancellation);
        return hires =>
            hires.Where(h => db.CurrentRecords.Any(r => r.EmploymentId == h.EmploymentId && r.ManagerId != null && employments.Contains(r.ManagerId.Value)));
    }

    /// <summary>A hire the user may see, or null.</summary>
    public static async Task<HireUnderWay?> FindAsync(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var visible = await VisibleAsync(actor, db, cancellation);
        return (await HiresUnderWay.LoadAsync(db, hires => visible(hires).Where(h => h.Id == id), cancellation)).SingleOrDefault();
    }
}
