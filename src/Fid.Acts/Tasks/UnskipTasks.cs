using Fid.Data;

namespace Fid.Acts.Tasks;

/// <summary>Says that tasks apply after all.</summary>
public sealed class UnskipTasks(FidDb db)
{
    public Task<ActResult<TasksChanged>> DoAsync(UnskipTasksRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange("task.unskipped", OwnToo: false, task =>
            {
                if (task.SkippedByCondition)
                    return TasksInHand.ByCondition;
                task.SkippedWhy = null;
                return null;
            }), actor, cancellation);
}

public sealed record UnskipTasksRequest(IReadOnlyList<TaskRef> Tasks);
