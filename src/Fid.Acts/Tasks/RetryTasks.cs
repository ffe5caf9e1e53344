using Fid.Core.Checklists;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Has tasks that Fid could not do by itself tried again at once.</summary>
public sealed class RetryTasks(FidDb db)
{
    private static readonly Refusal NotTried = Refusal.Conflict("not-tried", "This was not tried in vain: it is done by itself as soon as it can be.");

    public Task<ActResult<TasksChanged>> DoAsync(RetryTasksRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange("task.retried", OwnToo: true, Retry), actor, cancellation);

    // That it changes asks for the checklist to go on, and so for the task to be tried.
    private static Refusal? Retry(HireTask task)
    {
        if (task.Done is not null || task.SkippedWhy is not null)
            return TasksInHand.IsNotOpen;
        if (task.Kind != TaskKind.Run || task.Trouble is null)
            return NotTried;
        task.Tried(null, default, default);
        return null;
    }
}

public sealed record RetryTasksRequest(IReadOnlyList<TaskRef> Tasks);
