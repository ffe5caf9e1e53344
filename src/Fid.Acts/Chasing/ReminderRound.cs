using Fid.Acts.Calendars;
using Fid.Acts.Rights;
using Fid.Acts.Tasks;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>
/// What goes out on a day: the tasks of all hires under way, whose they are, and what Core makes of them. Who owns a task is somebody who can
/// sign in; a team's task is one for each of its members. A task that is to be done by no day is not chased; of one whose stage has opened its
/// owner is told once.
/// </summary>
public sealed class ReminderRound
{
    // After a longer silence nobody is told that something opened: what is due is told anyway.
    private static readonly Period OpenedIsNews = Period.FromDays(7);

    private readonly Dictionary<string, ChasedWork> _work;
    private readonly Dictionary<string, AccountRoles> _accounts;

    private ReminderRound(Chase chase, Dictionary<string, ChasedWork> work, Dictionary<string, AccountRoles> accounts, IReadOnlyList<ChasedWork> unowned) =>
        (Chase, _work, _accounts, Unowned) = (chase, work, accounts, [.. unowned.Where(w => w.Due is not null)]);

    public Chase Chase { get; }

    /// <summary>Tasks with a due day that nobody who can sign in owns: of them nobody can be reminded.</summary>
    public IReadOnlyList<ChasedWork> Unowned { get; }

    /// <summary>What a reminder is about.</summary>
    public ChasedWork WorkOf(string task) => _work[task];

    /// <summary>Who is meant by an id of Core's.</summary>
    public AccountRoles AccountOf(string id) => _accounts[id];

    /// <summary>Works out what goes out on a day, with what went out up to now.</summary>
    public static async Task<ReminderRound> LoadAsync(FidDb db, Firm firm, LocalDate day, CancellationToken cancellation)
    {
        var found = await FoundWork.LoadAsync(db, all => all, day, cancellation);
        var since = day - OpenedIsNews;
        var opened = await db
            .HireStages.Where(s => s.Opened >= since && s.Opened <= day)
            .ToDictionaryAsync(s => (s.HireId, s.StageKey), s => s.Opened, cancellation);
        List<ChasedTask> tasks =
        [
            .. found.Work.Values.Select(w => new ChasedTask(
                w.Id,
                w.Owner.ToString(),
                w.Due,
                w.IsPossible,
                w.Task.RemindersPaused || w.Hire.RemindersPaused,
                Opened: opened.GetValueOrDefault((w.Hire.Id, w.Task.StageKey))
            )),
        ];
        var sent = await SentAsync(db, tasks.Select(t => t.Id).ToHashSet(StringComparer.Ordinal), cancellation);
        return Of(found, new ChaseQuestion(day, found.Calendars.ByCode, PolicyOf(firm), found.People, tasks, sent));
    }

    /// <summary>Works out who is told when somebody asks for tasks to be remembered now, whether or not a moment of theirs has come: their owners, or
    /// who stands in for one today. Nobody is spared it on a rest day: somebody asks.</summary>
    public static async Task<ReminderRound> AskedAsync(FidDb db, IReadOnlyCollection<TaskRef> asked, LocalDate day, CancellationToken cancellation)
    {
        var hires = asked.Select(t => t.Hire).Distinct().ToArray();
        var found = await FoundWork.LoadAsync(db, all => all.Where(h => hires.Contains(h.Id)), day, cancellation);
        List<ChasedTask> tasks =
        [
            .. found
                .Work.Values.Where(w => asked.Contains(new TaskRef(w.Hire.Id, w.Task.Key)))
                .Select(w => new ChasedTask(w.Id, w.Owner.ToString(), day, Possible: true)),
        ];
        var now = new ChasePolicy([], OnDue: true, OverdueEvery: 1, OverdueMost: 0, EscalateAfter: null);
        var everyDay = new Dictionary<string, WorkCalendar> { [CalendarSet.Unknown] = new(RestMask.None, []) };
        return Of(found, new ChaseQuestion(day, everyDay, now, found.People.ConvertAll(p => p with { Calendar = CalendarSet.Unknown }), tasks, []));
    }

    private static ReminderRound Of(FoundWork found, ChaseQuestion question)
    {
        var chase = Chase.Of(question) is { Answer: { } answer } ? answer : throw new InvalidOperationException("What goes out cannot be worked out.");
        return new ReminderRound(chase, found.Work, found.Accounts.ToDictionary(a => a.Account.ToString(), StringComparer.Ordinal), found.Unowned);
    }

    /// <summary>When a firm reminds.</summary>
    public static ChasePolicy PolicyOf(Firm firm) => new(firm.RemindBefore, firm.RemindOnDue, firm.RemindEvery, firm.RemindMost, firm.EscalateAfter);

    private static async Task<List<SentReminder>> SentAsync(FidDb db, HashSet<string> chased, CancellationToken cancellation) => [.. (
                await (
                    from reminder in db.TaskReminders
                    join task in db.HireTasks on reminder.TaskId equals task.Id
                    join hire in db.Hires on task.HireId equals hire.Id
                    where hire.Closed == null && task.Done == null
                    select new
                    {
                        task.HireId,
                        task.Key,
                        reminder.OwnerId,
                        reminder.Kind,
                        reminder.Day,
                    }
                ).ToListAsync(cancellation)
            ).Select(r => new SentReminder(ChasedWork.IdOf(r.HireId, r.Key, r.OwnerId), r.Kind, r.Day)).Where(r => chased.Contains(r.Task))];
}
