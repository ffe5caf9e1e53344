using Fid.Data;

namespace Fid.Acts.Tasks;

/// <summary>Says that tasks do not apply, and why.</summary>
public sealed class SkipTasks(FidDb db)
{
    public async Task<ActResult<TasksChanged>> DoAsync(SkipTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Require(request.Why, "Say why it does not apply.", out var why) is { } bad)
            return Refusal.Invalid(bad);
        return await TaskChanges.MakeAsync(
            db,
            request,
            request.Tasks,
            new TaskChange(
                "task.skipped",
                OwnToo: false,
                task =>
                {
                    (task.SkippedWhy, task.SkippedByCondition, task.Done, task.DoneBy) = (why, false, null, null);
                    return null;
                },
                why
            ),
            actor,
            cancellation
        );
    }
}

public sealed record SkipTasksRequest(IReadOnlyList<TaskRef> Tasks, string? Why);
