using Fid.Acts;
using Fid.Acts.Chasing;
using Fid.Acts.Tasks;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data.Hires;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Tasks;

/// <summary>What can be done to tasks: to one, or to many of many hires at once.</summary>
internal static class TaskActEndpoints
{
    public static void MapTaskActs(this IEndpointRouteBuilder app)
    {
        Route(app.MapPost("/api/tasks/done", Tick).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/undone", Untick).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/step", Step).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/retried", Retry).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/note", Note).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/files", Attach).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/taken", Take).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/taken-back", TakeBack).WhoMay(Access.SignedIn));
        Route(app.MapPost("/api/tasks/skipped", Skip).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/unskipped", Unskip).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/owner", Reassign).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/day", Pin).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/meeting", Arrange).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/shape", Reshape).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/reminders", Remind).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/tasks/paused", Pause).WhoMay(Actions.Edit, Things.Task));
        app.MapPut("/api/hires/{id:guid}/reminders", PauseAll).WhoMay(Actions.Edit, Things.Task).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
        Route(app.MapPost("/api/hires/{id:guid}/tasks", Add).WhoMay(Actions.Edit, Things.Task));
        Route(app.MapPost("/api/hires/{id:guid}/tasks/{key}/parts", Split).WhoMay(Actions.Edit, Things.Task));
    }

    private static void Route(RouteHandlerBuilder route) =>
        route.ProducesProblem(400).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Tick(
        TicksRequest request,
        Actor actor,
        TickTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new TickTasksRequest(request.Tasks, request.Done, request.By), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Untick(
        TasksRequest request,
        Actor actor,
        UntickTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new UntickTasksRequest(request.Tasks), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Note(
        NotesRequest request,
        Actor actor,
        NoteTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new NoteTasksRequest(request.Tasks, request.Note), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Attach(
        AttachRequest request,
        Actor actor,
        AttachToTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new AttachToTasksRequest(request.Tasks, request.Attach, request.Detach), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Take(
        TakeRequest request,
        Actor actor,
        TakeTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new TakeTasksRequest(request.Tasks, request.Take), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> TakeBack(
        TakeBackRequest request,
        Actor actor,
        TakeBackTaskChanges act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new TakeBackTaskChangesRequest(request.Changes), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Skip(
        SkipsRequest request,
        Actor actor,
        SkipTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new SkipTasksRequest(request.Tasks, request.Why), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Unskip(
        TasksRequest request,
        Actor actor,
        UnskipTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new UnskipTasksRequest(request.Tasks), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Reassign(
        OwnerRequest request,
        Actor actor,
        ReassignTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new ReassignTasksRequest(request.Tasks, request.Owner, request.Why), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Step(
        StepRequest request,
        Actor actor,
        TickSteps act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new TickStepsRequest(request.Tasks, request.Step, request.Done), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Retry(
        TasksRequest request,
        Actor actor,
        RetryTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new RetryTasksRequest(request.Tasks), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Pin(
        DayRequest request,
        Actor actor,
        PinTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new PinTasksRequest(request.Tasks, request.Day), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Arrange(
        MeetingRequest request,
        Actor actor,
        ArrangeMeetings act,
        CancellationToken cancellation
    )
    {
        var at = string.IsNullOrWhiteSpace(request.At) ? null : TaskSpec.TimeOf(request.At);
        if (at is null && !string.IsNullOrWhiteSpace(request.At))
            return Problems.Invalid(new Problem("/at", "bad-time", "Enter a time of day, such as 09:30."));
        return Answer(await act.DoAsync(new ArrangeMeetingsRequest(request.Tasks, at, request.Minutes, request.Place), actor, cancellation));
    }

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Reshape(
        ShapeRequest request,
        Actor actor,
        ReshapeTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new ReshapeTasksRequest(request.Tasks, request.Work, request.Lags, request.Without, request.Why), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Remind(
        TasksRequest request,
        Actor actor,
        RemindNow act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new RemindNowRequest(request.Tasks), actor, cancellation));

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Pause(
        PausesRequest request,
        Actor actor,
        PauseTasks act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new PauseTasksRequest(request.Tasks, request.Paused), actor, cancellation));

    private static async Task<Results<NoContent, ProblemHttpResult>> PauseAll(
        Guid id,
        PauseRequest request,
        Actor actor,
        PauseHire act,
        CancellationToken cancellation
    ) => (await act.DoAsync(new PauseHireRequest(id, request.Paused), actor, cancellation)).Answer();

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Add(
        Guid id,
        NewTaskRequest request,
        Actor actor,
        AddTask act,
        CancellationToken cancellation
    ) =>
        Answer(
            await act.DoAsync(
                new AddTaskRequest(
                    id,
                    request.Name,
                    request.Stage,
                    request.Owner,
                    request.Work,
                    request.Day,
                    request.After,
                    request.Before,
                    request.Required,
                    request.DayOne,
                    request.Note
                ),
                actor,
                cancellation
            )
        );

    private static async Task<Results<Ok<TasksChangedResponse>, ProblemHttpResult>> Split(
        Guid id,
        string key,
        PartRequest request,
        Actor actor,
        SplitTask act,
        CancellationToken cancellation
    ) => Answer(await act.DoAsync(new SplitTaskRequest(id, key, request.Work, request.Name, request.Owner), actor, cancellation));

    private static Results<Ok<TasksChangedResponse>, ProblemHttpResult> Answer(ActResult<TasksChanged> result) =>
        result.IsDone(out var changed, out var refusal)
            ? TypedResults.Ok(
                new TasksChangedResponse(
                    [.. changed.Changes],
                    [.. changed.Left.Select(l => new TaskLeftResponse(l.Task, l.Why.Code, l.Why.Problems is [var first, ..] ? first.Message : l.Why.Message))]
                )
            )
            : Problems.Of(refusal);
}

public sealed record TasksRequest(TaskRef[] Tasks);

/// <param name="Done">The day they were done; today when left out.</param>
/// <param name="By">The employment of whoever did them; the reader when left out.</param>
public sealed record TicksRequest(TaskRef[] Tasks, LocalDate? Done = null, Guid? By = null);

/// <param name="Step">The name by which the step is known.</param>
/// <param name="Done">Whether it is done; else it is not, after all.</param>
public sealed record StepRequest(TaskRef[] Tasks, string Step, bool Done);

public sealed record NotesRequest(TaskRef[] Tasks, string? Note);

/// <param name="Attach">The ids of files given before.</param>
/// <param name="Detach">The ids of files that no longer go with them.</param>
public sealed record AttachRequest(TaskRef[] Tasks, Guid[]? Attach, Guid[]? Detach);

public sealed record TakeRequest(TaskRef[] Tasks, bool Take);

public sealed record TakeBackRequest(Guid[] Changes);

public sealed record SkipsRequest(TaskRef[] Tasks, string? Why);

/// <param name="Paused">False has their owners reminded again.</param>
public sealed record PausesRequest(TaskRef[] Tasks, bool Paused = true);

/// <param name="Paused">Whether nobody is reminded of its tasks for now.</param>
public sealed record PauseRequest(bool Paused);

public sealed record OwnerRequest(TaskRef[] Tasks, string Owner, string? Why = null);

/// <param name="Day">Null leaves it to the plan.</param>
public sealed record DayRequest(TaskRef[] Tasks, LocalDate? Day);

/// <param name="At">The time of day, HH:mm, in the firm's zone; null for at no time.</param>
/// <param name="Minutes">How long; null for as long as is usual.</param>
public sealed record MeetingRequest(TaskRef[] Tasks, string? At, int? Minutes, string? Place);

/// <param name="Work">The working days it takes; null leaves them.</param>
/// <param name="Lags">The working days it waits after a task that it comes after, by that one's key.</param>
/// <param name="Without">The keys of tasks that it waits for no longer.</param>
public sealed record ShapeRequest(TaskRef[] Tasks, int? Work = null, Dictionary<string, int>? Lags = null, string[]? Without = null, string? Why = null);

/// <param name="Day">The day it is to be done on; null leaves that to the plan.</param>
/// <param name="After">Keys of the tasks it comes after.</param>
/// <param name="Before">Keys of the tasks that come after it.</param>
public sealed record NewTaskRequest(
    string? Name,
    string? Stage,
    string? Owner,
    int Work = 1,
    LocalDate? Day = null,
    string[]? After = null,
    string[]? Before = null,
    bool Required = true,
    bool DayOne = false,
    string? Note = null
);

/// <param name="Work">The working days that the first part takes.</param>
/// <param name="Name">How the second part is called.</param>
/// <param name="Owner">Who does the second part; null for whoever does the first.</param>
public sealed record PartRequest(int Work, string? Name, string? Owner = null);

/// <param name="Changes">By which it can be taken back.</param>
/// <param name="Left">The tasks that stay as they were.</param>
public sealed record TasksChangedResponse(Guid[] Changes, TaskLeftResponse[] Left);

/// <param name="Message">Why it stays, in a sentence.</param>
public sealed record TaskLeftResponse(TaskRef Task, string Code, string Message);
