using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>A hire under way with all its tasks, held against others who would change them: for acts that change which tasks there are.</summary>
public sealed record ChecklistInHand(Hire Hire, CurrentRecord Record)
{
    /// <summary>Takes it in hand, where the actor may change its tasks; else says why not.</summary>
    internal static async Task<ActResult<ChecklistInHand>> TakeAsync(FidDb db, Actor actor, Guid id, CancellationToken cancellation)
    {
        var reached = await ReachedHires.NarrowAsync(actor, db, Actions.Edit, Things.Task, cancellation);
        if (
            await reached(db.Hires).AsNoTracking().Where(h => h.Id == id).Select(h => (Guid?)h.EmploymentId).SingleOrDefaultAsync(cancellation)
            is not { } employment
        )
            return Refusal.NotFound;
        // What adds a task holds the record, so that of two neither misses what the other added.
        await Locks.RecordAsync(db, employment, cancellation);
        var keys = await db.HireTasks.Where(t => t.HireId == id).Select(t => t.Key).ToListAsync(cancellation);
        await Locks.TasksAsync(db, keys.ConvertAll(k => new TaskRef(id, k)), cancellation);
        var hire = await db.Hires.Include(h => h.Tasks).SingleAsync(h => h.Id == id, cancellation);
        if (hire.Closed is not null)
            return TasksInHand.Closed;
        return new ChecklistInHand(hire, await db.CurrentRecords.AsNoTracking().SingleAsync(r => r.EmploymentId == employment, cancellation));
    }

    /// <summary>A key for a task that is added: no other of the hire has it.</summary>
    internal string FreeKey() => Enumerable.Range(1, Hire.Tasks.Count + 1).Select(n => $"own-{n}").First(k => Hire.Tasks.TrueForAll(t => t.Key != k));

    /// <summary>What keeps the tasks from being planned as they are now: a ring of those that come after one another; null for nothing.</summary>
    internal async Task<Problem?> TroubleAsync(FidDb db, Actor actor, CalendarSet calendars, string pointer, CancellationToken cancellation)
    {
        var tasks = Hire.Tasks.OrderBy(t => t.Position).Select(TaskRow.Of).ToList();
        var stages = await StagePlans.LoadAsync(db, cancellation);
        var question = HirePlan.Question(actor.Today, Hire.Start, Hire.Accepted, calendars, stages.Of(Hire.Occasion), tasks, Record.CalendarCode);
        return Planner.Plan(question, SoonestSearch.Never).Problems is [var first, ..] ? new Problem(pointer, first.Code, first.Message) : null;
    }
}
