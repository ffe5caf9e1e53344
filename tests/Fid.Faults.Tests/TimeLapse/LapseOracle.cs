using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Faults.Tests.TimeLapse;

/// <summary>
/// What has to happen in the firm, worked out a day at a time and a hire at a time, in the plainest way: nothing of it is taken from the code under
/// test but whether a day is a working day.
/// </summary>
internal sealed class LapseOracle(IReadOnlyList<(Guid Id, LocalDate Start)> hires, Dictionary<string, LapsePerson> people, LocalDate entered)
{
    // How many days after it is due a task is done, in turn: most in time, some so late that its owner's manager hears of it.
    private static readonly int[] Habits = [-9, -6, 2, -4, -2, 5, -1, 0, 0, 1, -7, 3, 8, -3, 12, -5, 4];

    private static readonly string[] Stages = ["prepare", "arrive", "settle", "confirm"];

    private readonly LapseHire[] _hires = [.. hires.Select(h => new LapseHire(h.Id, h.Start))];
    private readonly WorkCalendar _office = people[LapseFirm.Tasks[0].Mail].Calendar;
    private readonly HashSet<(Guid Hire, string Task, string Kind, LocalDate Day)> _told = [];
    private readonly HashSet<(Guid Hire, string Task)> _known = [];

    /// <summary>Every reminder that has to go out: the day on which it does, to whom, and what of.</summary>
    public HashSet<LapseReminder> Reminders { get; } = [];

    /// <summary>When each stage has to open and pass, and when each hire has settled, by the day on which it is found out.</summary>
    public HashSet<LapseStep> Steps { get; } = [];

    /// <summary>A day begins: stages may open by it.</summary>
    public void Begin(LocalDate day)
    {
        foreach (var hire in _hires.Where(h => !h.Settled))
            Advance(hire, day);
    }

    /// <summary>It is the firm's hour: those who have to are told.</summary>
    public void Remind(LocalDate day)
    {
        foreach (var hire in _hires.Where(h => !h.Settled))
        foreach (var task in LapseFirm.Tasks.Where(t => CanStart(hire, t)))
            Remind(hire, task, day);
    }

    /// <summary>The tasks that somebody does on a day.</summary>
    public IReadOnlyList<(Guid Hire, string Task)> DoneOn(LocalDate day)
    {
        var done = new List<(Guid, string)>();
        foreach (var (i, hire) in _hires.Index())
        foreach (var (j, task) in LapseFirm.Tasks.Index())
            if (!hire.Settled && CanStart(hire, task) && hire.Start.PlusDays(task.Due + Habits[(i * 7 + j * 5) % Habits.Length]) <= day)
                // One in five never reads the handbook.
                if (task.Required || i % 5 != 0)
                    done.Add((hire.Id, task.Key));
        return done;
    }

    /// <summary>They are done.</summary>
    public void Do(IReadOnlyList<(Guid Hire, string Task)> tasks, LocalDate day)
    {
        foreach (var group in tasks.GroupBy(t => t.Hire))
        {
            var hire = _hires.Single(h => h.Id == group.Key);
            foreach (var (_, task) in group)
                hire.Done.Add(task);
            Advance(hire, day);
        }
    }

    private void Advance(LapseHire hire, LocalDate day)
    {
        for (var i = 0; i < Stages.Length; i++)
        {
            var stage = Stages[i];
            if (!hire.Opened.ContainsKey(stage) && OpeningOf(hire, i) <= day && (i == 0 || hire.Passed.Contains(Stages[i - 1])))
            {
                hire.Opened[stage] = day;
                // With what a hire begins is no news.
                if (day != entered)
                    Steps.Add(new LapseStep(hire.Id, stage, "stage.opened", day));
            }
            if (!hire.Passed.Contains(stage) && LapseFirm.Tasks.All(t => t.Stage != stage || !t.Required || hire.Done.Contains(t.Key)))
            {
                hire.Passed.Add(stage);
                Steps.Add(new LapseStep(hire.Id, stage, "stage.passed", day));
            }
        }
        hire.Settled = hire.Passed.Count == Stages.Length && hire.Start <= day;
        if (hire.Settled)
            Steps.Add(new LapseStep(hire.Id, null, "hire.settled", day));
    }

    // An opening on a rest day is on the next working day.
    private LocalDate OpeningOf(LapseHire hire, int stage)
    {
        var day = stage switch
        {
            0 => entered,
            1 => hire.Start,
            2 => hire.Start.PlusDays(7),
            _ => hire.Start.PlusMonths(2),
        };
        while (!_office.IsWorking(day))
            day = day.PlusDays(1);
        return day;
    }

    private static bool CanStart(LapseHire hire, LapseTask task) =>
        hire.Opened.ContainsKey(task.Stage) && !hire.Done.Contains(task.Key) && (task.After is null || hire.Done.Contains(task.After));

    private void Remind(LapseHire hire, LapseTask task, LocalDate today)
    {
        var owner = people[task.Mail];
        // Due no later than on a working day of the task's calendar, and told of by those of its owner.
        var due = Back(_office, hire.Start.PlusDays(task.Due));
        due = Back(owner.Calendar, due);
        if (owner.Manager is { } manager && Step(owner.Calendar, due, 3) is var escalated && escalated <= today)
            Tell(manager, "Escalation", escalated);
        var moments = new List<(string Kind, LocalDate Day)>
        {
            ("Before", Step(owner.Calendar, due, -5)),
            ("Before", Step(owner.Calendar, due, -1)),
            ("Due", due),
        };
        for (var times = 1; times <= 3; times++)
            moments.Add(("Overdue", Step(owner.Calendar, due, 2 * times)));
        if (moments.FindLast(m => m.Day <= today) is { Kind: not null } latest)
            Tell(InPlaceOf(task.Mail, today), latest.Kind, latest.Day);
        if (hire.Opened[task.Stage] is var opened && opened >= today.PlusDays(-7) && !_known.Contains((hire.Id, task.Key)))
            Tell(InPlaceOf(task.Mail, today), "Opened", opened);

        void Tell(string to, string kind, LocalDate day)
        {
            if (people[to].Calendar.IsWorking(today) && _told.Add((hire.Id, task.Key, kind, day)))
            {
                Reminders.Add(new LapseReminder(today, to, hire.Id, task.Key, kind, day));
                _known.Add((hire.Id, task.Key));
            }
        }
    }

    private string InPlaceOf(string owner, LocalDate today)
    {
        var at = owner;
        while (people[at].Away.FirstOrDefault(a => a.From <= today && today <= a.To) is { From.Year: > 1 } away)
            at = away.StandIn ?? throw new InvalidOperationException("Everybody who is away has a stand-in here.");
        return at;
    }

    private static LocalDate Back(WorkCalendar calendar, LocalDate day)
    {
        while (!calendar.IsWorking(day))
            day = day.PlusDays(-1);
        return day;
    }

    private static LocalDate Step(WorkCalendar calendar, LocalDate day, int days)
    {
        for (var left = Math.Abs(days); left > 0; )
        {
            day = day.PlusDays(Math.Sign(days));
            if (calendar.IsWorking(day))
                left--;
        }
        return day;
    }

    private sealed class LapseHire(Guid id, LocalDate start)
    {
        public Guid Id => id;

        public LocalDate Start => start;

        public HashSet<string> Done { get; } = [];

        public Dictionary<string, LocalDate> Opened { get; } = [];

        public HashSet<string> Passed { get; } = [];

        public bool Settled { get; set; }
    }
}

/// <summary>Somebody who is told of tasks.</summary>
/// <param name="Manager">The address of their manager, where that one signs in.</param>
internal sealed record LapsePerson(WorkCalendar Calendar, string? Manager, IReadOnlyList<(LocalDate From, LocalDate To, string? StandIn)> Away);

/// <summary>A reminder that goes out.</summary>
/// <param name="On">The day on which it goes out.</param>
/// <param name="Day">The day of its moment.</param>
internal sealed record LapseReminder(LocalDate On, string To, Guid Hire, string Task, string Kind, LocalDate Day);

/// <summary>Something that becomes of a stage, or of a whole hire.</summary>
internal sealed record LapseStep(Guid Hire, string? Stage, string Action, LocalDate On);
