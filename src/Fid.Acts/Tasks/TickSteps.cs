using Fid.Core.Checklists;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Ticks one step of tasks that are a group of steps, or takes it back. With the last step the task is done, and open again when one is not.</summary>
public sealed class TickSteps(FidDb db)
{
    private static readonly Refusal NoSteps = Refusal.Conflict("no-steps", "This task has no steps. Tick it as a whole.");

    private static readonly Refusal NoStep = Refusal.Invalid("/step", "unknown-step", "The task has no such step. Look at it again: its steps have changed.");

    public Task<ActResult<TasksChanged>> DoAsync(TickStepsRequest request, Actor actor, CancellationToken cancellation) =>
        TaskChanges.MakeAsync(
            db,
            request,
            request.Tasks,
            new TaskChange("task.stepped", OwnToo: true, task => Step(task, request, actor)),
            actor,
            cancellation
        );

    private static Refusal? Step(HireTask task, TickStepsRequest request, Actor actor)
    {
        if (task.Kind != TaskKind.Steps || task.Steps.Length == 0)
            return NoSteps;
        if (task.SkippedWhy is not null)
            return TasksInHand.IsNotOpen;
        if (Array.IndexOf(task.Steps, request.Step) is var at && at < 0)
            return NoStep;
        if (request.Done != task.StepsDone.Contains(at))
            task.StepTo(request.Done ? task.StepsDone.Append(at) : task.StepsDone.Where(d => d != at), actor.Name, actor.Today);
        return null;
    }
}

/// <param name="Step">What the step is called, in the language it was first written in: by that it stays the same should others come before it.</param>
/// <param name="Done">Whether it is done; else it is not, after all.</param>
public sealed record TickStepsRequest(IReadOnlyList<TaskRef> Tasks, string Step, bool Done);
