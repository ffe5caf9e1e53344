using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Takes tasks of one's team on, so that the others need not look after them; or gives them back to the team.</summary>
public sealed class TakeTasks(FidDb db)
{
    internal const string Taken = "task.taken";
    internal const string GivenBack = "task.givenBack";

    public Task<ActResult<TasksChanged>> DoAsync(TakeTasksRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(
            db,
            request,
            request.Tasks,
            new TaskChange(request.Take ? Taken : GivenBack, OwnToo: true, task => Take(task, request.Take, actor)),
            actor,
            cancellation
        );

    private static Refusal? Take(HireTask task, bool take, Actor actor)
    {
        if (HireTask.TeamOf(task.Owner) is not { } team)
            return Refusal.Conflict("no-team", "It is not a team's: there is nobody to take it from.");
        if (task.Done is not null)
            return TasksInHand.IsDone;
        if (!take)
        {
            task.TakenById = null;
            return null;
        }
        if (!actor.Tasks.Teams.Contains(team))
            return Refusal.Conflict("not-in-team", "Only members of the team take its tasks. Give it to somebody instead.");
        if (task.TakenById is { } taken && taken != actor.AccountId)
            return Refusal.Conflict("taken", "Somebody else took it. They can give it back.");
        task.TakenById = actor.AccountId;
        return null;
    }
}

/// <param name="Take">Whether they are taken; else they are given back.</param>
public sealed record TakeTasksRequest(IReadOnlyList<TaskRef> Tasks, bool Take);
