using System.Security.Claims;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;

namespace Fid.Server.Platform;

/// <summary>Puts into a session what endpoints need of its user, so that they need not look it up each time.</summary>
internal sealed class SessionClaims(UserManager<FidUser> users, RoleManager<IdentityRole<Guid>> roles, IOptions<IdentityOptions> options)
    : UserClaimsPrincipalFactory<FidUser, IdentityRole<Guid>>(users, roles, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(FidUser user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(FidClaims.DisplayName, user.DisplayName));
        if (user.PersonId is { } person) identity.AddClaim(new Claim(FidClaims.Person, person.ToString()));
        identity.AddClaims(user.Teams.Select(t => new Claim(FidClaims.Team, t)));
        return identity;
    }
}
