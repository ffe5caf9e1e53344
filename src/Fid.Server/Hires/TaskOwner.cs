using System.Security.Claims;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Hires;

/// <summary>Who does a task: the newcomer, the hire's manager or buddy, its coordinator, a team, or a person.</summary>
internal static class TaskOwner
{
    public const string Newcomer = "newcomer";
    public const string Manager = "manager";
    public const string Buddy = "buddy";
    public const string Coordinator = "coordinator";

    /// <summary>Narrows hires to those in which something is the user's own: as newcomer, manager, buddy or coordinator, or by a task.</summary>
    /// <param name="openOnly">Whether only tasks that are not done count.</param>
    public static Func<IQueryable<Hire>, IQueryable<Hire>> Concerning(ClaimsPrincipal user, Guid[] employments, FidDb db, bool openOnly = false)
    {
        var teams = user.FindAll(FidClaims.Team).Select(c => HireTask.TeamPrefix + c.Value).ToArray();
        string[] owners = [.. teams, .. employments.Select(e => HireTask.PersonPrefix + e)];
        var id = user.Id();
        var person = Guid.TryParse(user.FindFirstValue(FidClaims.Person), out var p) ? p : Guid.Empty;
        return hires => hires.Where(h =>
            h.Tasks.Any(t => (!openOnly || (t.Done == null && t.SkippedWhy == null)) && owners.Contains(t.Owner))
            || h.CoordinatorId == id
            || db.RecordsNow.Any(r => r.EmploymentId == h.EmploymentId && (r.PersonId == person || (r.ManagerId != null && employments.Contains(r.ManagerId.Value)) || (r.BuddyId != null && employments.Contains(r.BuddyId.Value)))));
    }

    /// <summary>Whether a task is the user's own, whether or not its hire is under way.</summary>
    public static async Task<bool> OwnsAsync(HireTask task, ClaimsPrincipal user, Guid[] employments, FidDb db, CancellationToken cancellation)
    {
        var who = await db.Hires.Where(h => h.Id == task.HireId).Join(db.RecordsNow, h => h.EmploymentId, r => r.EmploymentId, (h, r) => new TaskPeople(r.PersonId, r.ManagerId, r.BuddyId, h.CoordinatorId)).SingleOrDefaultAsync(cancellation);
        return who is not null && IsMine(task.Owner, who, user, employments);
    }

    /// <summary>Whether a task with this owner, on this hire, is the user's own.</summary>
    public static bool IsMine(string owner, HireHead hire, ClaimsPrincipal user, Guid[] employments) =>
        IsMine(owner, new TaskPeople(hire.PersonId, hire.ManagerId, hire.BuddyId, hire.CoordinatorId), user, employments);

    private static bool IsMine(string owner, TaskPeople hire, ClaimsPrincipal user, Guid[] employments) => owner switch
    {
        Newcomer => user.HasClaim(FidClaims.Person, hire.PersonId.ToString()),
        Manager => hire.ManagerId is { } manager && employments.Contains(manager),
        Buddy => hire.BuddyId is { } buddy && employments.Contains(buddy),
        Coordinator => hire.CoordinatorId == user.Id(),
        _ when HireTask.PersonOf(owner) is { } person => employments.Contains(person),
        _ => HireTask.TeamOf(owner) is { } team && user.HasClaim(FidClaims.Team, team),
    };

    /// <summary>Whom the owners of a hire's tasks can be.</summary>
    private sealed record TaskPeople(Guid PersonId, Guid? ManagerId, Guid? BuddyId, Guid CoordinatorId);
}
