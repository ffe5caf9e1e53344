using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Chasing;

/// <summary>What is to be known to tell what goes out on a day about tasks that are not done.</summary>
/// <param name="Today">The day on which it goes out.</param>
/// <param name="Calendars">The calendars of the people, by id.</param>
/// <param name="People">Owners, their managers and stand-ins.</param>
/// <param name="Tasks">The tasks that are not done, in their order.</param>
/// <param name="Sent">What went out already, in any order.</param>
public sealed record ChaseQuestion(
    LocalDate Today,
    IReadOnlyDictionary<string, WorkCalendar> Calendars,
    ChasePolicy Policy,
    IReadOnlyList<ChasedPerson> People,
    IReadOnlyList<ChasedTask> Tasks,
    IReadOnlyCollection<SentReminder> Sent
);

/// <summary>When a firm reminds; all in working days of the owner.</summary>
/// <param name="Before">How many before the due date, each 1 or more, in any order.</param>
/// <param name="OnDue">Whether on the due date.</param>
/// <param name="OverdueEvery">Every how many after it, 1 or more.</param>
/// <param name="OverdueMost">How often after it at most; 0 for never.</param>
/// <param name="EscalateAfter">How many after it the owner's manager is told, once; null for never.</param>
public sealed record ChasePolicy(IReadOnlyList<int> Before, bool OnDue, int OverdueEvery, int OverdueMost, int? EscalateAfter);

/// <summary>Somebody who may be written to.</summary>
/// <param name="Calendar">The id of the calendar they work by.</param>
/// <param name="Manager">The id of their manager; null for none.</param>
/// <param name="Away">When they are away; of two on one day the first counts.</param>
public sealed record ChasedPerson(string Id, string Calendar, string? Manager, IReadOnlyList<Absence> Away);

/// <summary>A task that is not done.</summary>
/// <param name="Owner">The id of whose it is.</param>
/// <param name="Due">By when it is to be done; on a rest day of the owner, the working day before. Null for by no day: then nobody is chased.</param>
/// <param name="Possible">Whether it can be begun.</param>
/// <param name="Paused">Whether nobody is to be reminded of it for now.</param>
/// <param name="Opened">The day on which its stage opened, of which its owner is told once; null for nothing to tell.</param>
public sealed record ChasedTask(string Id, string Owner, LocalDate? Due, bool Possible, bool Paused = false, LocalDate? Opened = null);

/// <summary>A reminder that went out.</summary>
/// <param name="Day">The day of its moment, not that on which it went out.</param>
public readonly record struct SentReminder(string Task, ReminderKind Kind, LocalDate Day);

/// <summary>What a reminder is for, in the order in which one message tells them.</summary>
public enum ReminderKind
{
    /// <summary>It is so late that the owner's manager is told.</summary>
    Escalation,

    /// <summary>It is late.</summary>
    Overdue,

    /// <summary>It is due.</summary>
    Due,

    /// <summary>It will be due.</summary>
    Before,

    /// <summary>It can be begun now that its stage has opened.</summary>
    Opened,
}
