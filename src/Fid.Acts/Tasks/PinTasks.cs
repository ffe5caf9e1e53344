using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Tasks;

/// <summary>Says on which day tasks are to be done, whatever the plan says and however the start moves; or leaves it to the plan again.</summary>
public sealed class PinTasks(FidDb db)
{
    private static readonly Problem RestDay = new("/day", "rest-day", "Nobody works on that day who does this task. Choose a working day.");

    public async Task<ActResult<TasksChanged>> DoAsync(PinTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        if (request.Day is { } day && !ValueCheck.IsSensible(day))
            return Refusal.Invalid("/day", "bad-date", "Enter a date from 1900 to 2199.");
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var hires = (request.Tasks ?? []).OfType<TaskRef>().Select(t => t.Hire).Distinct().ToArray();
        var own = await db
            .Hires.Where(h => hires.Contains(h.Id))
            .Join(db.CurrentRecords, h => h.EmploymentId, r => r.EmploymentId, (h, r) => new { h.Id, r.CalendarCode })
            .ToDictionaryAsync(h => h.Id, h => h.CalendarCode, cancellation);
        return await TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange("task.pinned", OwnToo: false, task =>
            {
                if (RestDayOf(TaskRow.Of(task) with { Pinned = request.Day }, own.GetValueOrDefault(task.HireId), calendars) is { } rest)
                    return Refusal.Invalid(rest);
                if (task.Done is not null)
                    return TasksInHand.IsDone;
                task.Pinned = request.Day;
                return null;
            }), actor, cancellation);
    }

    /// <summary>That whoever does a task does not work on the day it is pinned to; null where they do, or where it is pinned to none.</summary>
    /// <param name="ownCalendar">The code of the newcomer's own holiday calendar.</param>
    public static Problem? RestDayOf(TaskRow task, string? ownCalendar, CalendarSet calendars) =>
        task.Pinned is { } day && !calendars[task.CalendarOf(ownCalendar)].IsWorking(day) ? RestDay : null;
}

/// <param name="Day">A working day of those who do it; null leaves it to the plan.</param>
public sealed record PinTasksRequest(IReadOnlyList<TaskRef> Tasks, LocalDate? Day);
