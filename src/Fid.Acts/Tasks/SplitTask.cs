using Fid.Core;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Splits a task of one hire in two, the second after the first: what came after the task then comes after the second.</summary>
public sealed class SplitTask(FidDb db)
{
    public async Task<ActResult<TasksChanged>> DoAsync(SplitTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        var owner = request.Owner is null ? null : await TaskOwnerFinder.FindAsync(db, request.Owner, cancellation);
        if (Check(request, owner) is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return new TasksChanged([], []);
        if (!(await ChecklistInHand.TakeAsync(db, actor, request.Hire, cancellation)).IsDone(out var checklist, out var refused))
            return refused;
        var tasks = checklist.Hire.Tasks;
        if (tasks.Find(t => t.Key == request.Task) is not { } first)
            return Refusal.NotFound;
        if (first.Done is not null || first.SkippedWhy is not null)
            return TasksInHand.IsNotOpen;
        if (request.Work >= first.Work)
            return Refusal.Invalid("/work", "out-of-range", $"The task takes {first.Work} working days: the first part takes fewer.");
        var second = Second(first, request, owner, checklist.FreeKey());
        AddTask.MakeRoom(tasks, second, []);
        // The end of the whole is now that of the second part.
        (first.Work, first.DueAnchor, first.DueAmount, first.DueUnit, first.Pinned) = (request.Work, null, 0, default, null);
        var changed = new List<HireTask> { first };
        foreach (var later in tasks.Where(t => t.After.Contains(first.Key)))
        {
            later.After = [.. later.After.Select(a => a == first.Key ? second.Key : a)];
            changed.Add(later);
        }
        db.ChangeTracker.DetectChanges();
        var author = actor.Author("checklist");
        List<Data.Changes.Change> entries =
        [
            author.Change("task.added", request.Hire, second.Key) with
            {
                Details = TaskFacts.OfAddition(second).Write(),
            },
            .. changed.Select(t =>
                author.Change(t == first ? "task.split" : "task.reshaped", request.Hire, t.Key) with
                {
                    Details = TaskFacts.OfChange(db, t)!.Write(),
                }
            ),
        ];
        db.Add(second);
        entries.ForEach(e => act.Note(e));
        await act.CommitAsync(cancellation);
        return new TasksChanged([.. entries.Select(e => e.Id)], []);
    }

    private static List<Problem> Check(SplitTaskRequest request, FoundOwner? owner)
    {
        var problems = new List<Problem>();
        if (RequiredText.Check("/name", request.Name, HireTask.LongestName) is { } name)
            problems.Add(name);
        if (request.Work < 1)
            problems.Add(new Problem("/work", "out-of-range", "The first part takes at least one working day."));
        if (request.Owner is not null && owner is null)
            problems.Add(TaskOwnerFinder.Unknown);
        return problems;
    }

    private static HireTask Second(HireTask first, SplitTaskRequest request, FoundOwner? owner, string key)
    {
        _ = TextRules.TryClean(request.Name!, out var name);
        return new HireTask
        {
            HireId = first.HireId,
            Key = key,
            Position = 0,
            Name = name,
            StageKey = first.StageKey,
            Owner = owner?.Owner ?? first.Owner,
            CalendarCode = owner?.Calendar ?? first.CalendarCode,
            Work = first.Work - request.Work,
            DueAnchor = first.DueAnchor,
            DueAmount = first.DueAmount,
            DueUnit = first.DueUnit,
            Pinned = first.Pinned,
            After = [first.Key],
            Lags = [0],
            Required = first.Required,
            DayOne = first.DayOne,
            Added = true,
        };
    }
}

/// <param name="Task">The key of the task.</param>
/// <param name="Work">The working days that its first part takes; the second takes the others.</param>
/// <param name="Name">How the second part is called.</param>
/// <param name="Owner">Who does the second part; null for whoever does the first.</param>
public sealed record SplitTaskRequest(Guid Hire, string Task, int Work, string? Name, string? Owner = null);
