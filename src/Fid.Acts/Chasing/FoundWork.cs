using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>The open tasks of hires under way with those who do them, as Core is asked about them.</summary>
/// <param name="Work">By the id by which Core knows it.</param>
/// <param name="Unowned">Tasks that nobody who can sign in owns.</param>
internal sealed record FoundWork(
    CalendarSet Calendars,
    List<AccountRoles> Accounts,
    List<ChasedPerson> People,
    Dictionary<string, ChasedWork> Work,
    IReadOnlyList<ChasedWork> Unowned
)
{
    /// <summary>Reads it, as it is on a day.</summary>
    /// <param name="which">Narrows the hires.</param>
    public static async Task<FoundWork> LoadAsync(FidDb db, Func<IQueryable<Hire>, IQueryable<Hire>> which, LocalDate day, CancellationToken cancellation)
    {
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var hires = await HiresUnderWay.LoadAsync(db, which, cancellation);
        var accounts = (await AccountRoles.OfWhoSignsInAsync(db, day, cancellation)).Where(a => a.Email is not null).ToList();
        var (people, ownersOf) = await PeopleAsync(db, accounts, calendars, day, cancellation);
        var stages = await StagePlans.LoadAsync(db, cancellation);
        var (work, unowned) = (new Dictionary<string, ChasedWork>(StringComparer.Ordinal), new List<ChasedWork>());
        foreach (var hire in hires)
        {
            var plan = HirePlan.Of(hire.Question(day, calendars, stages), SoonestSearch.Never);
            for (var i = 0; i < hire.Tasks.Count; i++)
            {
                if (plan.Tasks[i] is not { Unfinished: true } planned)
                    continue;
                // By when it is to be done as its owner sees it: where the template says no day, the last on which nothing else is late for it.
                var due = planned.Due ?? planned.LatestFinish;
                var owned = false;
                foreach (var owner in ownersOf(hire.Tasks[i], hire.Head))
                {
                    owned = true;
                    var about = new ChasedWork(hire.Head, hire.Tasks[i], owner.Account, due, planned.CanStart);
                    work[about.Id] = about;
                }
                if (!owned)
                    unowned.Add(new ChasedWork(hire.Head, hire.Tasks[i], Guid.Empty, due, planned.CanStart));
            }
        }
        return new FoundWork(calendars, accounts, people, work, unowned);
    }

    // Everybody who can be written to, and how the owners of a task are found among them.
    private static async Task<(List<ChasedPerson> People, Func<TaskRow, HireHead, IEnumerable<AccountRoles>> OwnersOf)> PeopleAsync(
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

        IEnumerable<AccountRoles> OwnersOf(TaskRow task, HireHead hire) =>
            task.Owner switch
            {
                OwnTasks.Newcomer => byPerson[hire.PersonId].Take(1),
                OwnTasks.Manager => Employed(hire.ManagerId),
                OwnTasks.Buddy => Employed(hire.BuddyId),
                OwnTasks.Coordinator => byId.TryGetValue(hire.CoordinatorId, out var coordinator) ? [coordinator] : [],
                _ when HireTask.PersonOf(task.Owner) is { } person => Employed(person),
                _ when HireTask.TeamOf(task.Owner) is { } team => Members(byTeam[team], task.TakenById),
                _ => [],
            };

        // Of those who could do it the one who took it on; all of them, should that one be in the team no longer.
        static IEnumerable<AccountRoles> Members(IEnumerable<AccountRoles> team, Guid? taken) =>
            team.Any(a => a.Account == taken) ? team.Where(a => a.Account == taken) : team;

        IEnumerable<AccountRoles> Employed(Guid? employment) => employment is { } id ? byEmployment[id].Take(1) : [];
    }
}
