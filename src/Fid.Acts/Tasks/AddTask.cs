using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Tasks;

/// <summary>Adds a task to one hire alone, between others of it.</summary>
public sealed class AddTask(FidDb db)
{
    private const int MostTasks = 200;

    public async Task<ActResult<TasksChanged>> DoAsync(AddTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        var owner = await TaskOwnerFinder.FindAsync(db, request.Owner, cancellation);
        var problems = Check(request).ToList();
        if (owner is null)
            problems.Add(TaskOwnerFinder.Unknown);
        if (!await db.Hires.AnyAsync(h => h.Id == request.Hire && db.Stages.Any(s => s.Key == request.Stage && s.Occasion == h.Occasion), cancellation))
            problems.Add(new Problem("/stage", "unknown-stage", "Choose a stage."));
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return new TasksChanged([], []);
        if (!(await ChecklistInHand.TakeAsync(db, actor, request.Hire, cancellation)).IsDone(out var checklist, out var refused))
            return refused;
        var tasks = checklist.Hire.Tasks;
        if (tasks.Count >= MostTasks)
            return Refusal.Conflict("too-many", $"A checklist has at most {MostTasks} tasks.");
        string[] after = [.. (request.After ?? []).Distinct()],
            before = [.. (request.Before ?? []).Distinct()];
        if (after.Concat(before).FirstOrDefault(k => tasks.TrueForAll(t => t.Key != k)) is not null)
            return Refusal.Invalid("/after", "unknown-task", "Choose tasks of this hire.");
        var added = Make(request, owner!, checklist, after);
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        if (PinTasks.RestDayOf(TaskRow.Of(added), checklist.Record.CalendarCode, calendars) is { } rest)
            return Refusal.Invalid(rest);
        MakeRoom(tasks, added, before);
        var author = actor.Author("checklist");
        var entries = new List<Data.Changes.Change>
        {
            author.Change("task.added", request.Hire, added.Key) with
            {
                Details = TaskFacts.OfAddition(added).Write(),
            },
        };
        foreach (var later in tasks.Where(t => before.Contains(t.Key)))
        {
            if (later.Done is not null)
                return Refusal.Invalid("/before", "done", $"{later.Name} is done already: nothing can come before it any more.");
            (later.After, later.Lags) = ([.. later.After, added.Key], [.. later.Lags, 0]);
            entries.Add(Entry(author, later));
        }
        // It joins the others by its hire.
        db.Add(added);
        if (await checklist.TroubleAsync(db, actor, calendars, "/before", cancellation) is { } ring)
            return Refusal.Invalid(ring);
        entries.ForEach(e => act.Note(e));
        await act.CommitAsync(cancellation);
        return new TasksChanged([.. entries.Select(e => e.Id)], []);
    }

    private Data.Changes.Change Entry(Data.Changes.Author author, HireTask task)
    {
        db.ChangeTracker.DetectChanges();
        return author.Change("task.reshaped", task.HireId, task.Key) with { Details = TaskFacts.OfChange(db, task)!.Write() };
    }

    private static IEnumerable<Problem> Check(AddTaskRequest request)
    {
        if (RequiredText.Check("/name", request.Name, HireTask.LongestName) is { } name)
            yield return name;
        if (request.Work is < 0 or > TaskFindings.MostWork)
            yield return new Problem("/work", "out-of-range", $"Enter a whole number of working days from 0 to {TaskFindings.MostWork}.");
        if (request.Day is { } day && !ValueCheck.IsSensible(day))
            yield return new Problem("/day", "bad-date", "Enter a date from 1900 to 2199.");
        if (NoteTasks.Check(request.Note) is { } note)
            yield return note;
    }

    private static HireTask Make(AddTaskRequest request, FoundOwner owner, ChecklistInHand checklist, string[] after)
    {
        _ = TextRules.TryClean(request.Name!, out var name);
        return new HireTask
        {
            HireId = checklist.Hire.Id,
            Key = checklist.FreeKey(),
            Position = 0,
            Name = name,
            StageKey = request.Stage!,
            Owner = owner.Owner,
            // A team has no calendar of its own: its other tasks for this newcomer say on which days it works.
            CalendarCode = owner.Calendar ?? checklist.Hire.Tasks.Find(t => t.Owner == owner.Owner)?.CalendarCode ?? HireTask.OwnCalendar,
            Work = request.Work,
            After = after,
            Lags = new int[after.Length],
            Required = request.Required,
            DayOne = request.DayOne,
            Pinned = request.Day,
            Note = NoteTasks.Clean(request.Note),
            Added = true,
        };
    }

    /// <summary>Gives a task its place: behind the last that it comes after, or else before the first that comes after it, or else at the end.</summary>
    internal static void MakeRoom(List<HireTask> tasks, HireTask added, IReadOnlyCollection<string> before)
    {
        var behind = tasks.Where(t => added.After.Contains(t.Key)).Select(t => (int?)t.Position).Max();
        var first = tasks.Where(t => before.Contains(t.Key)).Select(t => (int?)t.Position).Min();
        added.Position = behind + 1 ?? first ?? tasks.Select(t => t.Position).DefaultIfEmpty(-1).Max() + 1;
        foreach (var later in tasks.Where(t => t.Position >= added.Position))
            later.Position++;
    }
}

/// <param name="Owner">As templates write it.</param>
/// <param name="Work">The working days it takes.</param>
/// <param name="Day">The day it is to be done on; null leaves that to the plan.</param>
/// <param name="After">Keys of the tasks it comes after.</param>
/// <param name="Before">Keys of the tasks that come after it.</param>
public sealed record AddTaskRequest(
    Guid Hire,
    string? Name,
    string? Stage,
    string? Owner,
    int Work = 1,
    LocalDate? Day = null,
    IReadOnlyList<string>? After = null,
    IReadOnlyList<string>? Before = null,
    bool Required = true,
    bool DayOne = false,
    string? Note = null
);
