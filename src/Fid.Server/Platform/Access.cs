using System.Security.Claims;
using Fid.Acts;
using Fid.Core.Rights;
using Fid.Data.Changes;
using Microsoft.AspNetCore.Authorization;

namespace Fid.Server.Platform;

/// <summary>Who may call what. Every endpoint names one of these, or a right to a thing; one that names none is refused to everybody.
/// Whom a right reaches is for what the endpoint does to ask.</summary>
public static class Access
{
    /// <summary>Anybody, signed in or not.</summary>
    public const string Anybody = "anybody";

    /// <summary>The user who is signed in.</summary>
    public const string SignedIn = "signedIn";

    public static void AddFidAccess(this IServiceCollection services)
    {
        var authorization = services
            .AddAuthorizationBuilder()
            .SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAssertion(_ => false).Build())
            .AddPolicy(Anybody, policy => policy.RequireAssertion(_ => true))
            .AddPolicy(SignedIn, policy => policy.RequireAuthenticatedUser());
        foreach (var right in Things.Rights)
            authorization.AddPolicy(To(right.Action, right.Thing), policy =>
                policy.RequireAuthenticatedUser().RequireAssertion(c => Actor(c.Resource)?.May(right.Action, right.Thing) == true)
            );
    }

    public static RouteHandlerBuilder WhoMay(this RouteHandlerBuilder endpoint, string policy) =>
        endpoint.RequireAuthorization(policy).AddEndpointFilter(NoNulls.Filter);

    /// <summary>Those who may do something with a thing, be it of all people or of some.</summary>
    public static RouteHandlerBuilder WhoMay(this RouteHandlerBuilder endpoint, string action, string thing) => endpoint.WhoMay(To(action, thing));

    public static Guid Id(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!);

    /// <summary>The account as whose user the signed-in user looks at Fid: mostly their own.</summary>
    public static Guid Shown(this ClaimsPrincipal user) => Guid.TryParse(user.FindFirstValue(FidClaims.ViewsAs), out var other) ? other : user.Id();

    /// <summary>The signed-in user as the author of a change made from a place.</summary>
    public static Author Author(this ClaimsPrincipal user, FirmClock clock, string origin) =>
        new(user.Id(), user.FindFirstValue(FidClaims.DisplayName) ?? "", clock.Now, origin);

    private static string To(string action, string thing) => $"{action} {thing}";

    private static Actor? Actor(object? resource) => (resource as HttpContext)?.Features.Get<Actor>();
}

/// <summary>What a session knows of its user besides who they are. What they may is asked for anew for every request.</summary>
public static class FidClaims
{
    public const string DisplayName = "fid:name";
    public const string Session = "fid:session";
    public const string ViewsAs = "fid:views-as";
    public const string HasFactor = "fid:has-factor";
    public const string ProvedAt = "fid:proved-at";
}
