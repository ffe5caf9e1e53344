using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>
/// What goes out on a day: the tasks of all hires under way, whose they are, and what Core makes of them. Who owns a task is somebody who can
/// sign in; a team's task is one for each of its members. A task that is to be done by no day is not chased.
/// </summary>
public sealed class ReminderRound
{
    private readonly Dictionary<string, ChasedWork> _work;
    private readonly Dictionary<string, AccountRoles> _accounts;

    private ReminderRound(Chase chase, Dictionary<string, ChasedWork> work, Dictionary<string, AccountRoles> accounts, IReadOnlyList<ChasedWork> unowned) =>
        (Chase, _work, _accounts, Unowned) = (chase, work, accounts, unowned);

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
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var hires = await HiresUnderWay.LoadAsync(db, all => all, cancellation);
        var accounts = (await AccountRoles.OfWhoSignsInAsync(db, day, cancellation)).Where(a => a.Email is not null).ToList();
        var (people, ownersOf) = await PeopleAsync(db, accounts, calendars, day, cancellation);
        var stages = await Stage.PlanAsync(db, cancellation);

        var (tasks, work, unowned) = (new List<ChasedTask>(), new Dictionary<string, ChasedWork>(StringComparer.Ordinal), new List<ChasedWork>());
        foreach (var hire in hires)
        {
            var plan = HirePlan.Of(hire.Question(day, calendars, stages), SoonestSearch.Never);
            for (var i = 0; i < hire.Tasks.Count; i++)
            {
                // By when it is to be done as its owner sees it: where the template says no day, the last on which nothing else is late for it.
                if (plan.Tasks[i] is not { Unfinished: true } planned || (planned.Due ?? planned.LatestFinish) is not { } due)
                    continue;
                var owned = false;
                foreach (var owner in ownersOf(hire.Tasks[i].Owner, hire.Head))
                {
                    owned = true;
                    var about = new ChasedWork(hire.Head, hire.Tasks[i], owner.Account, due);
                    work[about.Id] = about;
                    tasks.Add(new ChasedTask(about.Id, owner.Account.ToString(), due, planned.CanStart));
                }
                if (!owned)
                    unowned.Add(new ChasedWork(hire.Head, hire.Tasks[i], Guid.Empty, due));
            }
        }
        var question = new ChaseQuestion(day, calendars.ByCode, PolicyOf(firm), people, tasks, await SentAsync(db, work, cancellation));
        var chase = Chase.Of(question) is { Answer: { } answer } ? answer : throw new InvalidOperationException("What goes out cannot be worked out.");
        return new ReminderRound(chase, work, accounts.ToDictionary(a => a.Account.ToString(), StringComparer.Ordinal), unowned);
    }

    /// <summary>When a firm reminds.</summary>
    public static ChasePolicy PolicyOf(Firm firm) => new(firm.RemindBefore, firm.RemindOnDue, firm.RemindEvery, firm.RemindMost, firm.EscalateAfter);

    // Everybody who can be written to, and how the owners of a task are found among them.
    private static async Task<(List<ChasedPerson> People, Func<string, HireHead, IEnumerable<AccountRoles>> OwnersOf)> PeopleAsync(
        FidDb db,
        List<AccountRoles> accounts,
        CalendarSet calendars,
        LocalDate day,
        CancellationToken cancellation
    )
    {
        var byId = accounts.ToDictionary(a => a.Account);
        var byEmployment = accounts.SelectMany(a => a.Employments.Select(e => (Employment: e, Account: a))).ToLookup(x => x.Employment, x => x.Account);
        var byTeam = accounts.SelectMany(a => a.Teams.Select(t => (Team: t, Account: a))).ToLookup(x => x.Team, x => x.Account, StringComparer.Ordinal);
        var byPerson = accounts.Where(a => a.Person is not null).ToLookup(a => a.Person!.Value);
        var present = accounts.SelectMany(a => a.Present).ToArray();
        var records = await db
            .CurrentRecords.AsNoTracking()
            .Where(r => present.Contains(r.EmploymentId))
            .Select(r => new
            {
                r.EmploymentId,
                r.CalendarCode,
                r.ManagerId,
            })
            .ToDictionaryAsync(r => r.EmploymentId, cancellation);
        var absences = (await db.AccountAbsences.AsNoTracking().Where(a => a.From <= day && a.To >= day).ToListAsync(cancellation)).ToLookup(a => a.AccountId);
        var people = accounts.ConvertAll(a =>
        {
            var record = a.Present.Select(records.GetValueOrDefault).FirstOrDefault(r => r is not null);
            var manager = record?.ManagerId is { } above ? byEmployment[above].FirstOrDefault() : null;
            return new ChasedPerson(
                a.Account.ToString(),
                record?.CalendarCode is { } code && calendars.ByCode.ContainsKey(code) ? code : CalendarSet.Unknown,
                manager?.Account.ToString(),
                [
                    .. absences[a.Account]
                        .Select(x => new Absence(x.From, x.To, x.StandInId is { } standIn && byId.ContainsKey(standIn) ? standIn.ToString() : null)),
                ]
            );
        });
        return (people, OwnersOf);

        IEnumerable<AccountRoles> OwnersOf(string owner, HireHead hire) =>
            owner switch
            {
                OwnTasks.Newcomer => byPerson[hire.PersonId].Take(1),
                OwnTasks.Manager => Employed(hire.ManagerId),
                OwnTasks.Buddy => Employed(hire.BuddyId),
                OwnTasks.Coordinator => byId.TryGetValue(hire.CoordinatorId, out var coordinator) ? [coordinator] : [],
                _ when HireTask.PersonOf(owner) is { } person => Employed(person),
                _ => HireTask.TeamOf(owner) is { } team ? byTeam[team] : [],
            };

        IEnumerable<AccountRoles> Employed(Guid? employment) => employment is { } id ? byEmployment[id].Take(1) : [];
    }

    private static async Task<List<SentReminder>> SentAsync(FidDb db, Dictionary<string, ChasedWork> work, CancellationToken cancellation) => [.. (
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
            ).Select(r => new SentReminder(ChasedWork.IdOf(r.HireId, r.Key, r.OwnerId), r.Kind, r.Day)).Where(r => work.ContainsKey(r.Task))];
}

/// <summary>A task of a hire, as one of its owners is chased for it.</summary>
/// <param name="Owner">The account of the owner; empty where there is none.</param>
/// <param name="Due">By when it is to be done.</param>
public sealed record ChasedWork(HireHead Hire, TaskRow Task, Guid Owner, LocalDate Due)
{
    /// <summary>By which Core knows it.</summary>
    public string Id => IdOf(Hire.Id, Task.Key, Owner);

    internal static string IdOf(Guid hire, string key, Guid owner) => $"{hire}/{key}/{owner}";
}
