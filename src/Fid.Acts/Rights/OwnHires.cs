using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>Hires in which something is an actor's own to do: as the newcomer, the manager or buddy, the coordinator, one of a team, or by name.</summary>
public static class OwnHires
{
    /// <summary>Narrows hires to those in which something is the actor's own.</summary>
    /// <param name="openOnly">Whether only tasks that are not done count.</param>
    public static IQueryable<Hire> Concerning(Actor actor, FidDb db, IQueryable<Hire> hires, bool openOnly = false)
    {
        var (owners, records) = (actor.Tasks.Named, db.CurrentRecords);
        var (accounts, person, own) = (actor.Tasks.Accounts, actor.Tasks.Person ?? Guid.Empty, actor.Tasks.Employments);
        return hires.Where(h =>
            h.Tasks.Any(t => (!openOnly || (t.Done == null && t.SkippedWhy == null)) && owners.Contains(t.Owner))
            || accounts.Contains(h.CoordinatorId)
            || records.Any(r =>
                r.EmploymentId == h.EmploymentId
                && (r.PersonId == person || (r.ManagerId != null && own.Contains(r.ManagerId.Value)) || (r.BuddyId != null && own.Contains(r.BuddyId.Value)))
            )
        );
    }

    /// <summary>The employments for whose hires, as long as they are under way, something is the actor's own. What each kind of owner comes to is
    /// asked for by itself: asked for together, every hire would be held against all of them. The record of each open hire is looked at by its key,
    /// which "offset 0" holds the planner to: it would go through all records else, or through the thousands whom a director leads.</summary>
    public static Task<Guid[]> EmploymentsAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var (owners, accounts, person, own) = (actor.Tasks.Named, actor.Tasks.Accounts.ToArray(), actor.Tasks.Person ?? Guid.Empty, actor.Tasks.Employments);
        return db
            .Database.SqlQuery<Guid>(
                $"""
                select employment_id as "Value" from hires where closed is null and coordinator_id = any({accounts})
                union all select h.employment_id from hire_tasks t join hires h on h.id = t.hire_id where h.closed is null and t.owner = any({owners})
                union all select h.employment_id from hires h where h.closed is null and exists (
                  select from (select person_id, manager_id, buddy_id from records_now r where r.employment_id = h.employment_id offset 0) r
                  where r.person_id = {person} or r.manager_id = any({own}) or r.buddy_id = any({own}))
                """
            )
            .ToArrayAsync(cancellation);
    }
}
