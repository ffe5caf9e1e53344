using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Chasing;

/// <summary>What is to be known to tell where work stalls.</summary>
/// <param name="Calendars">By which days are counted, by id.</param>
/// <param name="From">The first day on which what is counted was done, included.</param>
/// <param name="To">The last, included; on it, what is open is looked at.</param>
/// <param name="Least">Of how many the time that work takes is believed.</param>
/// <param name="Tasks">The tasks, done or not, in any order.</param>
public sealed record StallsQuestion(
    IReadOnlyDictionary<string, WorkCalendar> Calendars,
    LocalDate From,
    LocalDate To,
    int Least,
    IReadOnlyList<WorkedTask> Tasks
);

/// <summary>A task of some hire.</summary>
/// <param name="Key">By which it is told with those of other hires.</param>
/// <param name="Owner">Whose it is.</param>
/// <param name="Calendar">The id of the calendar it is worked by.</param>
/// <param name="Work">The working days it is said to take.</param>
/// <param name="Possible">The day from which it could be worked on.</param>
/// <param name="Due">By when it was to be done; null for no such day.</param>
/// <param name="Done">When it was done; null for not yet.</param>
/// <param name="HeldUp">Whether it held up its hire.</param>
public sealed record WorkedTask(
    string Key,
    string Owner,
    string Calendar,
    int Work,
    LocalDate Possible,
    LocalDate? Due = null,
    LocalDate? Done = null,
    bool HeldUp = false
);
