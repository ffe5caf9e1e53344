using System.Security.Claims;
using Microsoft.AspNetCore.Identity;

namespace Fid.Server.Platform;

/// <summary>Who a signed-in user is. What they may is no part of it: that is read anew for every request.</summary>
internal static class SessionPrincipal
{
    /// <summary>The user of an account.</summary>
    public static ClaimsPrincipal Of(Guid account, string name)
    {
        var identity = new ClaimsIdentity(IdentityConstants.ApplicationScheme);
        identity.AddClaim(new Claim(ClaimTypes.NameIdentifier, account.ToString()));
        identity.AddClaim(new Claim(FidClaims.DisplayName, name));
        return new ClaimsPrincipal(identity);
    }
}
