using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Gives tasks to somebody else. A person does them on their own working days.</summary>
public sealed class ReassignTasks(FidDb db)
{
    public async Task<ActResult<TasksChanged>> DoAsync(ReassignTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } bad)
            return Refusal.Invalid(bad);
        if (await TaskOwnerFinder.FindAsync(db, request.Owner, cancellation) is not { } owner)
            return Refusal.Invalid(TaskOwnerFinder.Unknown);
        return await TaskChanges.MakeAsync(
            db,
            request,
            request.Tasks,
            new TaskChange("task.reassigned", OwnToo: false, task => Give(task, owner), Reason.Clean(request.Why)),
            actor,
            cancellation
        );
    }

    private static Refusal? Give(HireTask task, FoundOwner owner)
    {
        if (task.Done is not null)
            return TasksInHand.IsDone;
        if (task.Owner == owner.Owner)
            return null;
        (task.Owner, task.TakenById) = (owner.Owner, null);
        task.CalendarCode = owner.Calendar ?? task.CalendarCode;
        return null;
    }
}

/// <param name="Owner">As templates write it: "manager", "team:stores", "person:" and the id of an employment.</param>
public sealed record ReassignTasksRequest(IReadOnlyList<TaskRef> Tasks, string Owner, string? Why);
