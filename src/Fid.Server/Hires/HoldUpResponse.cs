using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Core.Planning;
using Fid.Server.Lists;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>The task to chase.</summary>
/// <param name="Owner">Who does it, as stored.</param>
/// <param name="OwnerName">The team's name, where a team does it.</param>
/// <param name="Work">Working days it takes.</param>
/// <param name="Left">Working days left from the earliest day it can start to the latest it may finish; 0 when that has passed.</param>
/// <param name="EarliestFinish">When it can be finished.</param>
/// <param name="BeforeKnown">Whether it was due before the hire was opened here: nobody was late with it.</param>
public sealed record HoldUpResponse(
    string Key,
    string Name,
    string Owner,
    string? OwnerName,
    LocalDate? Due,
    LocalDate LatestFinish,
    LocalDate EarliestFinish,
    TaskState State,
    int Slack,
    int Work,
    int Left,
    bool BeforeKnown
)
{
    /// <summary>What holds up a hire under way.</summary>
    internal static HoldUpResponse? Of(Plan plan, HireUnderWay hire, CalendarSet calendars, ListNames names) =>
        Of(plan, hire.Tasks, hire.Head.CalendarCode, calendars, owner => names.Owner(owner, hire.Head), hire.Head.Entered);

    /// <param name="nameOf">What an owner is called.</param>
    /// <param name="entered">When the hire was opened here; null where that makes no difference.</param>
    internal static HoldUpResponse? Of(
        Plan plan,
        IReadOnlyList<TaskRow> tasks,
        string? ownCalendar,
        CalendarSet calendars,
        Func<string, string?> nameOf,
        LocalDate? entered = null
    )
    {
        for (var i = 0; i < plan.Tasks.Count; i++)
        {
            if (plan.Tasks[i] is not { Slack: { } slack } planned || planned.Id != plan.HoldUp)
                continue;
            var task = tasks[i];
            var left = Math.Max(0, calendars[task.CalendarOf(ownCalendar)].Count(planned.EarliestStart!.Value, planned.LatestFinish!.Value));
            return new HoldUpResponse(
                task.Key,
                task.Called,
                task.Owner,
                nameOf(task.Owner),
                planned.Due,
                planned.LatestFinish.Value,
                planned.EarliestFinish!.Value,
                planned.State,
                slack,
                task.Work,
                left,
                planned.State == TaskState.Late && planned.Due < entered
            );
        }
        return null;
    }
}
