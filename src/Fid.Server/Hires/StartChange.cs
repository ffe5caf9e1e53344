using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.Lists;
using Fid.Data.People;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Moving a hire's first day: what would change, and doing it.</summary>
internal static class StartChange
{
    public static async Task<Results<Ok<StartChangeResponse>, ProblemHttpResult>> Preview(
        Guid id, LocalDateParameter to, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        if (Check(to.Date, "/to") is { } problem) return Problems.Invalid(problem);
        if (await HireAccess.FindAsync(id, user, db, cancellation) is not { } hire) return Problems.NotFound();
        var today = await clock.TodayAsync(db, cancellation);
        var calendars = await CalendarBook.LoadAsync(db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation);
        var stages = await Stage.PlanAsync(db, cancellation);

        var question = hire.Question(today, calendars, stages);
        var moved = hire with { Head = hire.Head with { Start = to.Date, Accepted = LocalDate.Min(hire.Head.Accepted, to.Date) } };
        var (before, after) = (HirePlan.Of(question, SoonestSearch.Never), HirePlan.Of(moved.Question(today, calendars, stages), SoonestSearch.Never));
        var changed = hire.Tasks
            .Select((t, i) => new TaskMove(t.Key, t.Called, t.Owner, names.Owner(t.Owner), Dates(before.Tasks[i]), Dates(after.Tasks[i])))
            .Where(m => m.Before != m.After).ToArray();
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var values = (await new TemplateUpdates(db).OnMoveAsync(id, to.Date, today, cancellation)).Where(v => ShownRecord.Sees(fields, ShownRecord.RolesOf(user), [v.Field]));
        return TypedResults.Ok(new StartChangeResponse(
            hire.Head.Start, to.Date, Period.DaysBetween(hire.Head.Start, to.Date), before.Feasible, after.Feasible, changed,
            HoldUpResponse.Of(after, hire.Tasks, hire.Head.CalendarCode, calendars, names, hire.Head.Entered), [.. values.Select(v => new ValueMove(v.Field, v.Before, v.After))]));
    }

    public static async Task<Results<Ok<ChecklistResponse>, ProblemHttpResult>> Save(
        Guid id, StartRequest request, ClaimsPrincipal user, FidDb db, RecordWriter records, Notices notices, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        var problems = new List<Problem>();
        if (Check(request.Start, "/start") is { } problem) problems.Add(problem);
        if (Reason.Check(request.Why) is { } reason) problems.Add(reason);
        if (problems.Count > 0) return Problems.Invalid(problems);
        if (Versions.Seen(http.Request) is not { } seen) return Problems.VersionNeeded();
        if (await HireAccess.FindAsync(id, user, db, cancellation) is not { } open) return Problems.NotFound();
        if (open.Head.Version != seen) return Problems.Stale(await Checklist.DescribeAsync(open, user, db, clock, cancellation));

        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await records.LockAsync(open.Head.EmploymentId, cancellation);
        var hire = await db.Hires.SingleAsync(h => h.Id == id, cancellation);
        if (hire.Version != seen) return Problems.Stale(await Checklist.DescribeAsync(open, user, db, clock, cancellation));
        var employment = await db.Employments.SingleAsync(e => e.Id == hire.EmploymentId, cancellation);
        var record = await db.RecordsNow.SingleAsync(r => r.EmploymentId == hire.EmploymentId, cancellation);
        var today = await clock.TodayAsync(db, cancellation);
        var change = user.Author(clock, "checklist").Change("start.moved", hire.Id, $"{hire.Start:uuuu-MM-dd} > {request.Start:uuuu-MM-dd}", Reason.Clean(request.Why));
        db.Changes.Add(change);
        var moved = await new TemplateUpdates(db).OnMoveAsync(id, request.Start, today, cancellation);
        if (employment.End < request.Start && moved.All(m => m.Field != "end_date"))
            return Problems.Invalid(new Problem("/start", "after-end", "The record ends before that. Change its end first."));
        var anew = moved.ToDictionary(m => m.Field, m => m.After);
        anew["start_date"] = JsonSerializer.SerializeToElement(request.Start.ToString("uuuu-MM-dd", null));
        await records.MoveStartAsync(employment, record, request.Start, anew, change, today, cancellation);
        hire.Start = request.Start;
        await notices.TellAsync(hire, record, NoticeKind.StartMoved, change.At, cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);

        var saved = (await HireAccess.FindAsync(id, user, db, cancellation))!;
        Versions.Show(http.Response, saved.Head.Version);
        return TypedResults.Ok(await Checklist.DescribeAsync(saved, user, db, clock, cancellation));
    }

    private static TaskDates Dates(PlannedTask task) => new(task.State, task.Due, task.LatestStart, task.LatestFinish, task.Slack);

    private static Problem? Check(LocalDate date, string path) =>
        ValueCheck.IsSensible(date) ? null : new Problem(path, "bad-date", "Enter a date from 1900 to 2199.");
}

public sealed record StartRequest(LocalDate Start, string? Why);

/// <summary>What moving the start would change.</summary>
/// <param name="Days">How many days later; negative for earlier.</param>
/// <param name="Tasks">The tasks whose dates or state would change.</param>
/// <param name="Values">Values that formulas of the template would give anew.</param>
public sealed record StartChangeResponse(
    LocalDate From, LocalDate To, int Days, bool FeasibleBefore, bool FeasibleAfter, TaskMove[] Tasks, HoldUpResponse? HoldUp, ValueMove[] Values);

public sealed record ValueMove(string Field, JsonElement Before, JsonElement After);

public sealed record TaskMove(string Key, string Name, string Owner, string? OwnerName, TaskDates Before, TaskDates After);

public sealed record TaskDates(TaskState State, LocalDate? Due, LocalDate? LatestStart, LocalDate? LatestFinish, int? Slack);
