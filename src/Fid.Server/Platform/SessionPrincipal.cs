using System.Security.Claims;
using Fid.Data;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Platform;

/// <summary>Who a signed-in user is and what they may, read anew for every request: what an administrator changes holds at once.</summary>
internal static class SessionPrincipal
{
    /// <summary>The user of an account; null where nobody can sign in with it any more.</summary>
    public static async Task<ClaimsPrincipal?> OfAccountAsync(FidDb db, Guid account, CancellationToken cancellation = default)
    {
        var user = await db
            .Users.AsNoTracking()
            .Where(u => u.Id == account && u.DisabledAt == null)
            .Select(u => new
            {
                u.DisplayName,
                u.PersonId,
                u.Teams,
                Roles = db.UserRoles.Where(r => r.UserId == u.Id).Join(db.Roles, r => r.RoleId, r => r.Id, (_, role) => role.Name!).ToList(),
            })
            .SingleOrDefaultAsync(cancellation);
        if (user is null)
            return null;
        var identity = new ClaimsIdentity(IdentityConstants.ApplicationScheme);
        identity.AddClaim(new Claim(ClaimTypes.NameIdentifier, account.ToString()));
        identity.AddClaim(new Claim(FidClaims.DisplayName, user.DisplayName));
        identity.AddClaims(user.Roles.Select(r => new Claim(ClaimTypes.Role, r)));
        if (user.PersonId is { } person)
            identity.AddClaim(new Claim(FidClaims.Person, person.ToString()));
        identity.AddClaims(user.Teams.Select(t => new Claim(FidClaims.Team, t)));
        return new ClaimsPrincipal(identity);
    }
}
