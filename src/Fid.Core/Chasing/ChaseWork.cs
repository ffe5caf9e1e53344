using Fid.Core.Calendars;
using Fid.Core.Texts;
using NodaTime;

namespace Fid.Core.Chasing;

/// <summary>One working out of a sound question.</summary>
internal sealed class ChaseWork(ChaseQuestion question, Dictionary<string, ChasedPerson> people)
{
    private readonly LocalDate _today = question.Today;
    private readonly HashSet<SentReminder> _sent = [.. question.Sent];

    // The tasks of which somebody was told, whatever for.
    private readonly HashSet<string> _known = [.. question.Sent.Select(s => s.Task)];
    private readonly int[] _before = [.. question.Policy.Before.Distinct().OrderDescending()];

    // Of each owner who is told today, worked out once: it hangs on the people alone.
    private readonly Dictionary<string, ChasedPerson> _actsFor = new(StringComparer.Ordinal);

    private readonly Dictionary<string, List<(Reminder Reminder, LocalDate? Due)>> _told = new(StringComparer.Ordinal);

    public Chase Answer()
    {
        var waiting = new List<WaitingReminder>();
        foreach (var task in question.Tasks)
            if (Look(task) is { } why)
                waiting.Add(new WaitingReminder(task.Id, why));
        return new Chase(
            [
                .. _told
                    .OrderBy(m => m.Key, CodePointOrder.Instance)
                    .Select(m => new ChaseMessage(
                        m.Key,
                        [
                            .. m
                                .Value.OrderBy(r => r.Reminder.Kind)
                                .ThenBy(r => r.Due ?? LocalDate.MaxIsoValue)
                                .ThenBy(r => r.Reminder.Task, CodePointOrder.Instance)
                                .Select(r => r.Reminder),
                        ]
                    )),
            ],
            waiting
        );
    }

    // Tells whoever is to be told of a task, and says why something of it does not go out.
    private WaitingReason? Look(ChasedTask task)
    {
        if (!task.Possible)
            return WaitingReason.NotPossible;
        if (task.Paused)
            return WaitingReason.Paused;
        var owner = people[task.Owner];
        var calendar = question.Calendars[owner.Calendar];
        var why = task.Due is { } day && calendar.Roll(day, RollRule.Preceding) is { } due ? Remind(task, owner, calendar, due) : null;
        // Who is told more of it today, or was before, knows of it.
        if (task.Opened is { } opened && opened <= _today && !_known.Contains(task.Id))
        {
            var to = ActsFor(owner);
            var rests = Tell(to, task, new Reminder(task.Id, ReminderKind.Opened, opened, 0, to.Id == owner.Id ? null : owner.Id));
            why ??= rests;
        }
        return why;
    }

    private WaitingReason? Remind(ChasedTask task, ChasedPerson owner, WorkCalendar calendar, LocalDate due)
    {
        WaitingReason? why = null;
        if (question.Policy.EscalateAfter is { } after && Moment(calendar, due, after) is { } escalated && IsUnsent(task, ReminderKind.Escalation, escalated))
            why = owner.Manager is { } manager
                ? Tell(people[manager], task, new Reminder(task.Id, ReminderKind.Escalation, escalated, after, owner.Id))
                : WaitingReason.NoManager;
        if (Latest(calendar, due) is var (kind, day, days) && IsUnsent(task, kind, day))
        {
            var to = ActsFor(owner);
            var rests = Tell(to, task, new Reminder(task.Id, kind, day, days, to.Id == owner.Id ? null : owner.Id));
            why ??= rests;
        }
        return why;
    }

    // The latest moment that has come of those before, at and after the due date.
    private (ReminderKind Kind, LocalDate Day, int Days)? Latest(WorkCalendar calendar, LocalDate due)
    {
        var policy = question.Policy;
        if (due < _today && policy.OverdueMost > 0)
        {
            // Working days that have come after the due date; not on it, which is one itself.
            var passed = calendar.Count(due, _today) - 1;
            var times = Math.Min(passed / policy.OverdueEvery, policy.OverdueMost);
            if (times > 0 && times * (long)policy.OverdueEvery is var days && Moment(calendar, due, days) is { } late)
                return (ReminderKind.Overdue, late, (int)days);
        }
        if (policy.OnDue && due <= _today)
            return (ReminderKind.Due, due, 0);
        for (var i = _before.Length - 1; i >= 0; i--)
            if (Moment(calendar, due, -_before[i]) is { } day)
                return (ReminderKind.Before, day, -_before[i]);
        return null;
    }

    // A moment that has come.
    private LocalDate? Moment(WorkCalendar calendar, LocalDate due, long days) => calendar.Add(due, days) is { } day && day <= _today ? day : null;

    private bool IsUnsent(ChasedTask task, ReminderKind kind, LocalDate day) => !_sent.Contains(new SentReminder(task.Id, kind, day));

    private WaitingReason? Tell(ChasedPerson to, ChasedTask task, Reminder reminder)
    {
        if (!question.Calendars[to.Calendar].IsWorking(_today))
            return WaitingReason.RestDay;
        _known.Add(task.Id);
        if (!_told.TryGetValue(to.Id, out var told))
            _told[to.Id] = told = [];
        told.Add((reminder, task.Due));
        return null;
    }

    // Whoever is told in place of an owner: along stand-ins, or else the manager, away or not, or else the owner.
    private ChasedPerson ActsFor(ChasedPerson owner)
    {
        if (_actsFor.TryGetValue(owner.Id, out var known))
            return known;
        var (at, seen) = (owner, new HashSet<string>(StringComparer.Ordinal));
        while (Absence.On(at.Away, _today) is { } away)
        {
            if (away.StandIn is { } standIn && seen.Add(at.Id))
            {
                at = people[standIn];
                continue;
            }
            at = owner.Manager is { } manager ? people[manager] : owner;
            break;
        }
        return _actsFor[owner.Id] = at;
    }
}
