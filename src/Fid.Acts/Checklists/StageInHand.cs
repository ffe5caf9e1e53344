using Fid.Acts.Rights;
using Fid.Acts.Tasks;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Checklists;

/// <summary>A stage of a hire, tracked, and its hire held against others who would change it: for those who have a word to say of its gate.</summary>
internal sealed record StageInHand(Hire Hire, HireStage Stage)
{
    /// <summary>Takes it in hand, where the actor may change the tasks of the hire; else says why not. One that came to nothing has no gates any
    /// more.</summary>
    public static async Task<ActResult<StageInHand>> TakeAsync(FidDb db, Actor actor, Guid id, string? key, CancellationToken cancellation)
    {
        var reached = await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation);
        if (!await reached(db.Hires).AnyAsync(h => h.Id == id && db.Stages.Any(s => s.Key == key && s.Occasion == h.Occasion), cancellation))
            return Refusal.NotFound;
        await Locks.HiresAsync(db, [id], cancellation);
        var hire = await db.Hires.SingleAsync(h => h.Id == id, cancellation);
        if (hire.Outcome is not null)
            return TasksInHand.Closed;
        if (await db.HireStages.SingleOrDefaultAsync(s => s.HireId == id && s.StageKey == key, cancellation) is not { } stage)
            db.HireStages.Add(stage = new HireStage { HireId = id, StageKey = key! });
        return new StageInHand(hire, stage);
    }
}
