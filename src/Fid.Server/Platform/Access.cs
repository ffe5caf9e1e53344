using System.Security.Claims;
using Fid.Acts;
using Fid.Data.Changes;
using Microsoft.AspNetCore.Authorization;

namespace Fid.Server.Platform;

/// <summary>Who may call what. Every endpoint names one of these; one that names none is refused to everybody.</summary>
public static class Access
{
    /// <summary>Anybody, signed in or not.</summary>
    public const string Anybody = "anybody";

    /// <summary>The user who is signed in.</summary>
    public const string SignedIn = "signedIn";

    /// <summary>Those who open hires and change records.</summary>
    public const string Coordinates = "coordinates";

    /// <summary>Those who connect Fid with other systems.</summary>
    public const string Administers = "administers";

    /// <summary>Those who read every record.</summary>
    public const string ReadsRecords = "readsRecords";

    /// <summary>Those who see Arrivals: managers see their own newcomers there.</summary>
    public const string SeesArrivals = "seesArrivals";

    public static IReadOnlyDictionary<string, string[]> RolesOf { get; } =
        new Dictionary<string, string[]>
        {
            [Coordinates] = [.. Actor.CoordinatingRoles],
            [Administers] = [.. Actor.AdministeringRoles],
            [ReadsRecords] = [.. Actor.ReadingRoles],
            [SeesArrivals] = [.. Actor.ArrivalsRoles],
        };

    public static void AddFidAccess(this IServiceCollection services)
    {
        var authorization = services
            .AddAuthorizationBuilder()
            .SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAssertion(_ => false).Build())
            .AddPolicy(Anybody, policy => policy.RequireAssertion(_ => true))
            .AddPolicy(SignedIn, policy => policy.RequireAuthenticatedUser());
        foreach (var (name, roles) in RolesOf)
            authorization.AddPolicy(name, policy => policy.RequireRole(roles));
    }

    public static RouteHandlerBuilder WhoMay(this RouteHandlerBuilder endpoint, string policy) =>
        endpoint.RequireAuthorization(policy).AddEndpointFilter(NoNulls.Filter);

    public static Guid Id(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!);

    /// <summary>The signed-in user as the author of a change made from a place.</summary>
    public static Author Author(this ClaimsPrincipal user, FirmClock clock, string origin) =>
        new(user.Id(), user.FindFirstValue(FidClaims.DisplayName) ?? "", clock.Now, origin);
}

/// <summary>What a session knows of its user besides the name and the roles.</summary>
public static class FidClaims
{
    public const string DisplayName = "fid:name";
    public const string Person = "fid:person";
    public const string Team = "fid:team";
    public const string Session = "fid:session";
}
