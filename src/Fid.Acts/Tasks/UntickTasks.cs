using Fid.Core.Checklists;
using Fid.Data;

namespace Fid.Acts.Tasks;

/// <summary>Says that tasks are not done after all.</summary>
public sealed class UntickTasks(FidDb db)
{
    internal const string Action = "task.undone";

    public Task<ActResult<TasksChanged>> DoAsync(UntickTasksRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange(Action, OwnToo: true, task =>
            {
                if (TaskFulfilment.CompletesItself(task.Kind))
                    return TasksInHand.ByItself;
                (task.Done, task.DoneBy) = (null, null);
                // Which of its steps is not done after all nobody has said: each is ticked again by itself.
                if (task.StepsDone.Length > 0)
                    task.StepsDone = [];
                return null;
            }), actor, cancellation);
}

public sealed record UntickTasksRequest(IReadOnlyList<TaskRef> Tasks);
