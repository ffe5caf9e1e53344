using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Chasing;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Tasks;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Tasks;

/// <summary>What became of a task up to now, and what would become of its hire if it were another.</summary>
internal static class TaskFactsEndpoints
{
    public static void MapTaskFacts(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/hires/{id:guid}/tasks/{key}/history", History).WhoMay(Actions.See, Things.Hire).ProducesProblem(404);
        app.MapPost("/api/hires/{id:guid}/tasks/{key}/trial", Try).WhoMay(Actions.Edit, Things.Task).OnlyReads().ProducesProblem(400).ProducesProblem(404);
    }

    /// <summary>Everything that was done to a task, and every reminder of it that went out, the latest first.</summary>
    private static async Task<Results<Ok<TaskHistoryResponse>, ProblemHttpResult>> History(
        Guid id,
        string key,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
        if (!await visible(db.Hires).AnyAsync(h => h.Id == id, cancellation))
            return Problems.NotFound();
        var tasks = await db.HireTasks.AsNoTracking().Where(t => t.HireId == id).ToDictionaryAsync(t => t.Key, cancellation);
        if (!tasks.TryGetValue(key, out var task))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var words = new TaskWords(names, tasks.ToDictionary(t => t.Key, t => ReaderLanguage.Choose(t.Value.Name, t.Value.NameDe)));
        var changes = await db
            .Changes.AsNoTracking()
            .Where(c => c.SubjectId == id && c.Part == key && c.Action.StartsWith("task."))
            .OrderByDescending(c => c.At)
            .ToListAsync(cancellation);
        var reminders = await (
            from reminder in db.TaskReminders
            join message in db.MailMessages on reminder.MessageId equals message.Id
            where reminder.TaskId == task.Id
            orderby message.At descending
            select new TaskReminderResponse(reminder.Kind, reminder.Day, message.Name, message.At, message.SentAt, message.Refused)
        )
            .AsNoTracking()
            .ToArrayAsync(cancellation);
        return TypedResults.Ok(
            new TaskHistoryResponse(
                [.. changes.Select(c => new TaskHistoryEntry(c.Id, c.At, c.ByName, c.Action, c.Why, words.Of(c), RemindNow.ToldBy(c.Details)))],
                reminders
            )
        );
    }

    /// <summary>What would become of a hire if one of its tasks took another time, waited for less, were somebody else's or did not apply.</summary>
    private static async Task<Results<Ok<TaskTrialResponse>, ProblemHttpResult>> Try(
        Guid id,
        string key,
        TaskTrialRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (await HireAccess.FindAsync(id, actor, db, cancellation) is not { } hire || hire.Tasks.All(t => t.Key != key))
            return Problems.NotFound();
        if (request.Work is < 0 or > TaskFindings.MostWork)
            return Problems.Invalid(new Problem("/work", "out-of-range", $"Enter a whole number of working days from 0 to {TaskFindings.MostWork}."));
        var owner = request.Owner is null ? null : await TaskOwnerFinder.FindAsync(db, request.Owner, cancellation);
        if (request.Owner is not null && owner is null)
            return Problems.Invalid(TaskOwnerFinder.Unknown);
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var stages = await StagePlans.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        hire = hire with { Head = new VisibleFacts(reader, names).Of(hire.Head) };
        var tried = hire with { Tasks = [.. hire.Tasks.Select(t => t.Key == key ? Changed(t, request, owner) : t)] };
        var (now, then) = (hire.Tasks.Single(t => t.Key == key), tried.Tasks.Single(t => t.Key == key));
        if (then.Pinned != now.Pinned && PinTasks.RestDayOf(then, hire.Head.CalendarCode, calendars) is { } rest)
            return Problems.Invalid(rest);
        var before = HirePlan.Of(hire.Question(actor.Today, calendars, stages), SoonestSearch.Always);
        var after = HirePlan.Of(tried.Question(actor.Today, calendars, stages), SoonestSearch.Always);
        return TypedResults.Ok(new TaskTrialResponse(Standing(hire, before), Standing(tried, after), TaskMove.Between(tried, before, after, names)));

        TrialStanding Standing(HireUnderWay of, Plan plan) =>
            new(
                plan.Feasible,
                plan.SoonestStart,
                HoldUpResponse.Of(plan, of, calendars, names),
                new ReadinessResponse(plan.Readiness.Done, plan.Readiness.Of, plan.Readiness.Percent)
            );
    }

    private static TaskRow Changed(TaskRow task, TaskTrialRequest request, FoundOwner? owner)
    {
        var kept = task.After.Select((k, i) => (Key: k, Lag: task.Lags[i])).Where(a => request.Without?.Contains(a.Key) != true).ToArray();
        return task with
        {
            Work = request.Work ?? task.Work,
            After = [.. kept.Select(k => k.Key)],
            Lags = [.. kept.Select(k => k.Lag)],
            Owner = owner?.Owner ?? task.Owner,
            CalendarCode = owner?.Calendar ?? task.CalendarCode,
            Pinned = request.Day ?? task.Pinned,
            Skipped = task.Skipped || request.Skip,
        };
    }
}

/// <summary>What a task is tried as. What is left out stays as it is.</summary>
/// <param name="Without">The keys of tasks that it would not wait for.</param>
/// <param name="Day">The day it would be pinned to.</param>
/// <param name="Skip">Whether it would not apply.</param>
public sealed record TaskTrialRequest(int? Work = null, string[]? Without = null, string? Owner = null, LocalDate? Day = null, bool Skip = false);

/// <summary>How a hire stands, and how it would.</summary>
/// <param name="Tasks">Those whose dates or state would change.</param>
public sealed record TaskTrialResponse(TrialStanding Before, TrialStanding After, TaskMove[] Tasks);

public sealed record TrialStanding(bool Feasible, LocalDate? SoonestStart, HoldUpResponse? HoldUp, ReadinessResponse Readiness);

/// <summary>What became of a task.</summary>
public sealed record TaskHistoryResponse(TaskHistoryEntry[] Changes, TaskReminderResponse[] Reminders);

/// <param name="Facts">What it changed.</param>
/// <param name="Told">Who was reminded, where it is a reminder somebody asked for.</param>
public sealed record TaskHistoryEntry(Guid Id, Instant At, string By, string Action, string? Why, TaskFactResponse[] Facts, string[] Told);

/// <param name="Name">Such as "owner", "work", "pinned", "after", "note".</param>
/// <param name="Before">In words; a day as ISO 8601 has it; null for nothing.</param>
public sealed record TaskFactResponse(string Name, string? Before, string? After);

/// <param name="Day">The day of its moment.</param>
/// <param name="SentAt">When the mail server took it; null while it has not.</param>
/// <param name="Refused">Why it could not be delivered.</param>
public sealed record TaskReminderResponse(ReminderKind Kind, LocalDate Day, string To, Instant At, Instant? SentAt, string? Refused);
