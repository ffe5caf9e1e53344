using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Which tasks are somebody's own: as the newcomer, the hire's manager or buddy, its coordinator, one of a team, or by name; and those of
/// people for whom they stand in.</summary>
public sealed class OwnTasks
{
    public const string Newcomer = "newcomer";
    public const string Manager = "manager";
    public const string Buddy = "buddy";
    public const string Coordinator = "coordinator";

    private readonly FidDb _db;
    private readonly Actor _actor;

    public OwnTasks(Actor actor, FidDb db) => (_actor, _db) = (actor, db);

    /// <summary>Narrows hires to those in which something is the actor's own.</summary>
    /// <param name="openOnly">Whether only tasks that are not done count.</param>
    public IQueryable<Hire> Concerning(IQueryable<Hire> hires, bool openOnly = false) => OwnHires.Concerning(_actor, _db, hires, openOnly);

    /// <summary>Whether a task with this owner, on this hire, is the actor's own.</summary>
    public bool Include(string owner, HireHead hire) => Include(owner, new TaskPeople(hire.PersonId, hire.ManagerId, hire.BuddyId, hire.CoordinatorId));

    /// <summary>Whether a task is the actor's own, whether or not its hire is under way.</summary>
    public async Task<bool> IncludeAsync(HireTask task, CancellationToken cancellation) =>
        (await AmongAsync([task.HireId], cancellation))(task.Owner, task.HireId);

    /// <summary>What says of an owner and one of some hires whether the task is the actor's own.</summary>
    public async Task<Func<string, Guid, bool>> AmongAsync(IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        var people = await _db
            .Hires.Where(h => hires.Contains(h.Id))
            .Join(
                _db.CurrentRecords,
                h => h.EmploymentId,
                r => r.EmploymentId,
                (h, r) => new { h.Id, People = new TaskPeople(r.PersonId, r.ManagerId, r.BuddyId, h.CoordinatorId) }
            )
            .ToDictionaryAsync(h => h.Id, h => h.People, cancellation);
        return (owner, hire) => people.TryGetValue(hire, out var who) && Include(owner, who);
    }

    private bool Include(string owner, TaskPeople hire) =>
        owner switch
        {
            Newcomer => hire.PersonId == _actor.Tasks.Person,
            Manager => hire.ManagerId is { } manager && _actor.Tasks.Employments.Contains(manager),
            Buddy => hire.BuddyId is { } buddy && _actor.Tasks.Employments.Contains(buddy),
            Coordinator => _actor.Tasks.Accounts.Contains(hire.CoordinatorId),
            _ => _actor.Tasks.AreNamedBy(owner),
        };

    /// <summary>Whom the owners of a hire's tasks can be.</summary>
    private sealed record TaskPeople(Guid PersonId, Guid? ManagerId, Guid? BuddyId, Guid CoordinatorId);
}
