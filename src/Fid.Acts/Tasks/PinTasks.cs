using Fid.Acts.Calendars;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Tasks;

/// <summary>Says on which day tasks are to be done, whatever the plan says and however the start moves; or leaves it to the plan again.</summary>
public sealed class PinTasks(FidDb db)
{
    /// <summary>That whoever does it does not work on the day.</summary>
    public static Problem RestDay { get; } = new("/day", "rest-day", "Nobody works on that day who does this task. Choose a working day.");

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
                if (request.Day is { } day && !calendars[OwnOr(task)].IsWorking(day))
                    return Refusal.Invalid(RestDay);
                if (task.Done is not null)
                    return Refusal.Conflict("done", "It is done already.");
                task.Pinned = request.Day;
                return null;
            }), actor, cancellation);

        string? OwnOr(HireTask task) => task.CalendarCode == HireTask.OwnCalendar ? own.GetValueOrDefault(task.HireId) : task.CalendarCode;
    }
}

/// <param name="Day">A working day of those who do it; null leaves it to the plan.</param>
public sealed record PinTasksRequest(IReadOnlyList<TaskRef> Tasks, LocalDate? Day);
