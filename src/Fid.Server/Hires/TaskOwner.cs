using System.Security.Claims;
using Fid.Data.Hires;
using Fid.Server.Platform;

namespace Fid.Server.Hires;

/// <summary>Who does a task: the newcomer, the hire's manager or buddy, its coordinator, a team, or a person.</summary>
internal static class TaskOwner
{
    public const string Newcomer = "newcomer";
    public const string Manager = "manager";
    public const string Buddy = "buddy";
    public const string Coordinator = "coordinator";

    /// <summary>Whether a task with this owner, on this hire, is the user's own.</summary>
    public static bool IsMine(string owner, HireHead hire, ClaimsPrincipal user, Guid[] employments) => owner switch
    {
        Newcomer => user.HasClaim(FidClaims.Person, hire.PersonId.ToString()),
        Manager => hire.ManagerId is { } manager && employments.Contains(manager),
        Buddy => hire.BuddyId is { } buddy && employments.Contains(buddy),
        Coordinator => hire.CoordinatorId == user.Id(),
        _ when HireTask.PersonOf(owner) is { } person => employments.Contains(person),
        _ => owner.StartsWith(HireTask.TeamPrefix, StringComparison.Ordinal) && user.HasClaim(FidClaims.Team, owner[HireTask.TeamPrefix.Length..]),
    };
}
