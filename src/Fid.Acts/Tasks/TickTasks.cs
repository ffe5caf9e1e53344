using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Tasks;

/// <summary>Ticks tasks off. Whoever says it second, without saying when or by whom, says nothing new.</summary>
public sealed class TickTasks(FidDb db)
{
    internal const string Action = "task.done";

    public async Task<ActResult<TasksChanged>> DoAsync(TickTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        var done = request.Done ?? actor.Today;
        if (done > actor.Today)
            return Refusal.Invalid("/done", "in-future", "A task is done today or on a day before.");
        if (!ValueCheck.IsSensible(done))
            return Refusal.Invalid("/done", "bad-date", "Enter a date from 1900 to 2199.");
        var by = actor.Name;
        if (request.By is { } person)
        {
            if (await db.CurrentRecords.Where(r => r.EmploymentId == person).Select(r => r.FullName).SingleOrDefaultAsync(cancellation) is not { } name)
                return Refusal.Invalid("/by", "unknown-person", "Choose somebody who has a record.");
            by = name;
        }
        return await TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange(Action, OwnToo: true, task =>
            {
                if (TaskFulfilment.CompletesItself(task.Kind))
                    return TasksInHand.ByItself;
                if (task.Done is null || (request.Done is { } on && on != task.Done) || (request.By is not null && by != task.DoneBy))
                    (task.Done, task.DoneBy, task.SkippedWhy, task.SkippedByCondition) = (done, by, null, false);
                // With the whole all of its steps are done.
                if (task.StepsDone.Length < task.Steps.Length)
                    task.StepTo(Enumerable.Range(0, task.Steps.Length), by, done);
                return null;
            }), actor, cancellation);
    }
}

/// <param name="Done">The day they were done; today when left out.</param>
/// <param name="By">The employment of whoever did them; the actor when left out.</param>
public sealed record TickTasksRequest(IReadOnlyList<TaskRef> Tasks, LocalDate? Done = null, Guid? By = null);
