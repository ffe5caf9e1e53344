using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Rights;

/// <summary>Hires in which something is an actor's own to do: as the newcomer, the manager or buddy, the coordinator, one of a team, or by name.</summary>
public static class OwnHires
{
    /// <summary>Narrows hires to those in which something is the actor's own.</summary>
    /// <param name="openOnly">Whether only tasks that are not done count.</param>
    public static IQueryable<Hire> Concerning(Actor actor, FidDb db, IQueryable<Hire> hires, bool openOnly = false)
    {
        string[] owners = [.. actor.Teams.Select(t => HireTask.TeamPrefix + t), .. actor.Employments.Select(e => HireTask.PersonPrefix + e)];
        var (account, person, own, records) = (actor.AccountId ?? Guid.Empty, actor.PersonId ?? Guid.Empty, actor.Employments, db.CurrentRecords);
        return hires.Where(h =>
            h.Tasks.Any(t => (!openOnly || (t.Done == null && t.SkippedWhy == null)) && owners.Contains(t.Owner))
            || h.CoordinatorId == account
            || records.Any(r =>
                r.EmploymentId == h.EmploymentId
                && (r.PersonId == person || (r.ManagerId != null && own.Contains(r.ManagerId.Value)) || (r.BuddyId != null && own.Contains(r.BuddyId.Value)))
            )
        );
    }
}
