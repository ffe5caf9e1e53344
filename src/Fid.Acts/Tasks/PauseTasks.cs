using Fid.Data;

namespace Fid.Acts.Tasks;

/// <summary>Says that nobody is to be reminded of tasks for now, or that they are again: then of the latest moment, as after any silence.</summary>
public sealed class PauseTasks(FidDb db)
{
    public Task<ActResult<TasksChanged>> DoAsync(PauseTasksRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange(request.Paused ? "task.paused" : "task.resumed", OwnToo: false, task =>
            {
                if (request.Paused && (task.Done is not null || task.SkippedWhy is not null))
                    return TasksInHand.IsNotOpen;
                task.RemindersPaused = request.Paused;
                return null;
            }), actor, cancellation);
}

public sealed record PauseTasksRequest(IReadOnlyList<TaskRef> Tasks, bool Paused = true);
