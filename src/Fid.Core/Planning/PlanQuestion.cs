using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Planning;

/// <summary>All that a checklist's plan follows from. The same question always has the same answer.</summary>
/// <param name="Today">The firm's date, from which open work is planned forward.</param>
/// <param name="Anchors">Named dates that offsets count from. "start" must be among them.</param>
/// <param name="Calendars">Calendars by the name tasks give.</param>
/// <param name="Stages">The stages, in the order they are shown.</param>
/// <param name="Tasks">The tasks, in any order; the answer keeps it.</param>
public sealed record PlanQuestion(
    LocalDate Today,
    IReadOnlyDictionary<string, LocalDate> Anchors,
    IReadOnlyDictionary<string, WorkCalendar> Calendars,
    IReadOnlyList<PlanStage> Stages,
    IReadOnlyList<PlanTask> Tasks
)
{
    /// <summary>The anchor every plan has: the newcomer's first day.</summary>
    public const string Start = "start";
}

/// <summary>A stage of a checklist.</summary>
/// <param name="Id">Unique among the stages.</param>
/// <param name="Opens">No task of the stage starts before this; null for no such bound.</param>
/// <param name="WaitsFor">Stages whose gate must be passed before a task of this one starts. A stage's gate is passed when
/// every required task of that stage is done or skipped, unless a person has the say of it.</param>
/// <param name="Passed">The day on which a person let its gate pass, whatever of its tasks is still to be done; null for no such day.</param>
/// <param name="Held">Whether a person keeps its gate from passing, though all its tasks be done. Nothing for one that a person let pass.</param>
public sealed record PlanStage(string Id, PlanOffset? Opens, IReadOnlyList<string> WaitsFor, LocalDate? Passed = null, bool Held = false);

/// <summary>A task of a checklist.</summary>
/// <param name="Id">Unique among the tasks.</param>
/// <param name="Stage">The id of its stage.</param>
/// <param name="Calendar">The name of the calendar its owner works on.</param>
/// <param name="Work">Working days it takes; 0 is a milestone, which needs no day of its own.</param>
/// <param name="Opens">It cannot start before this; null for no such bound. On a rest day it moves to the next working day.</param>
/// <param name="Due">The last day it may finish on; null for none. On a rest day it moves to the working day before.</param>
/// <param name="After">The tasks it comes after.</param>
/// <param name="Required">Whether its stage's gate, and a newcomer's readiness, wait for it.</param>
/// <param name="DayOne">Whether it must be finished before the start date.</param>
/// <param name="Done">The day it was done, or null.</param>
/// <param name="Skipped">Whether it does not apply to this newcomer; nothing waits for it then.</param>
public sealed record PlanTask(
    string Id,
    string Stage,
    string Calendar,
    int Work,
    PlanOffset? Opens,
    PlanOffset? Due,
    IReadOnlyList<PlanLink> After,
    bool Required,
    bool DayOne,
    LocalDate? Done,
    bool Skipped
);

/// <summary>A date counted from an anchor.</summary>
/// <param name="Anchor">The name of the anchor.</param>
/// <param name="Amount">How many units later; negative for earlier; 0 is the anchor itself.</param>
/// <param name="Unit">The unit.</param>
public sealed record PlanOffset(string Anchor, int Amount, OffsetUnit Unit);

/// <summary>The unit of a <see cref="PlanOffset"/>.</summary>
public enum OffsetUnit
{
    /// <summary>Working days, in the calendar of the task concerned.</summary>
    Working,

    /// <summary>Calendar days.</summary>
    Days,

    /// <summary>Weeks of seven calendar days.</summary>
    Weeks,

    /// <summary>Months, kept to the month's last day where the day does not exist: 31 January + 1 month is the last of
    /// February.</summary>
    Months,
}

/// <summary>That a task comes after another.</summary>
/// <param name="Id">The task before it.</param>
/// <param name="Lag">Working days to let pass in between, in the calendar of the task that waits.</param>
public sealed record PlanLink(string Id, int Lag);
