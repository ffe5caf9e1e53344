using Fid.Acts.Work;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Checklists;

/// <summary>Lets the checklists of all hires under way go on after something changed that they all go by, such as a holiday or a stage's gate.</summary>
public sealed class ReplanChecklists(FidDb db, AdvanceChecklists checklists, JobProgress progress)
{
    /// <summary>The job that does it; the database asks for it whenever a calendar or a stage changes.</summary>
    public const string Kind = "replan";

    // Few enough that others who change one of these hires wait only for a moment.
    private const int Together = 100;

    /// <summary>May be done as often as one likes, by several servers at once, and be cut off at any moment.</summary>
    /// <returns>How many things became of them.</returns>
    public async Task<ActResult<int>> DoAsync(ReplanChecklistsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        var open = await db.Hires.Where(h => h.Closed == null).OrderBy(h => h.Id).Select(h => h.Id).ToListAsync(cancellation);
        var (done, steps) = (0, 0);
        foreach (var hires in open.Chunk(Together))
        {
            await progress.ReportAsync(done, open.Count);
            if (!(await checklists.DoAsync(new AdvanceChecklistsRequest(hires), actor, cancellation)).IsDone(out var taken, out var refusal))
                return refusal;
            (done, steps) = (done + hires.Length, steps + taken);
            db.ChangeTracker.Clear();
        }
        return steps;
    }
}

public sealed record ReplanChecklistsRequest;
