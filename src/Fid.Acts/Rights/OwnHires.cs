using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>Hires in which something is an actor's own to do: as the newcomer, the manager or buddy, the coordinator, one of a team, or by name.</summary>
public static class OwnHires
{
    /// <summary>Narrows hires to those in which something is the actor's own. What kinds of owner come to is collected first, each by itself: that is
    /// planned and done sooner than to hold every hire against all of them.</summary>
    /// <param name="openOnly">Whether only tasks that are not done count.</param>
    public static IQueryable<Hire> Concerning(Actor actor, FidDb db, IQueryable<Hire> hires, bool openOnly = false)
    {
        var (owners, accounts) = (actor.Tasks.Named, actor.Tasks.Accounts);
        var (person, own) = (actor.Tasks.Person ?? Guid.Empty, actor.Tasks.Employments);
        var tasks = db.HireTasks.Where(t => owners.Contains(t.Owner) && (!openOnly || (t.Done == null && t.SkippedWhy == null))).Select(t => t.HireId);
        var people = db
            .HirePeople.Where(p =>
                p.PersonId == person || (p.ManagerId != null && own.Contains(p.ManagerId.Value)) || (p.BuddyId != null && own.Contains(p.BuddyId.Value))
            )
            .Select(p => p.HireId);
        return hires.Where(h => accounts.Contains(h.CoordinatorId) || tasks.Contains(h.Id) || people.Contains(h.Id));
    }

    /// <summary>The employments for whose hires, as long as they are under way, something is the actor's own: what <see cref="Concerning"/>
    /// says, in SQL, since it is asked with nearly every request and composing the query took a sixth of the time.</summary>
    public static Task<Guid[]> EmploymentsAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var (owners, accounts, person, own) = (actor.Tasks.Named, actor.Tasks.Accounts.ToArray(), actor.Tasks.Person ?? Guid.Empty, actor.Tasks.Employments);
        return db
            .Database.SqlQuery<Guid>(
                $"""
                select employment_id as "Value" from hires h where h.closed is null and (coordinator_id = any({accounts})
                or id in (select hire_id from hire_tasks t where t.owner = any({owners}))
                or id in (select hire_id from hire_people p where p.person_id = {person} or p.manager_id = any({own}) or p.buddy_id = any({own})))
                """
            )
            .ToArrayAsync(cancellation);
    }
}
