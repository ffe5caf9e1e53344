using System.Globalization;
using System.Security.Claims;
using Fid.Acts;
using Microsoft.AspNetCore.Authorization;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>Lets somebody with a second factor do nothing before they have proved it, and has them prove it again before what is taken out,
/// revealed, or changes what somebody may.</summary>
internal static class SecondFactorGate
{
    /// <summary>How long a proof is good for what asks again.</summary>
    public static readonly Duration Fresh = Duration.FromMinutes(10);

    /// <summary>Says of an endpoint that it is for those too who have yet to prove who they are.</summary>
    public static RouteHandlerBuilder BeforeSecondFactor(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new AsksFor(Asked.Nothing));

    /// <summary>Says of an endpoint that it adds a factor: for those who have none it is open, of the others it asks for a fresh proof.</summary>
    public static RouteHandlerBuilder AddsSecondFactor(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new AsksFor(Asked.ForFirst));

    /// <summary>Says of an endpoint that it asks those with a second factor to prove it again.</summary>
    public static RouteHandlerBuilder AsksAgain(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new AsksFor(Asked.Again)).ProducesProblem(403);

    /// <summary>Refuses what is not proved.</summary>
    public static void UseSecondFactor(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                if (http.User.Identity?.IsAuthenticated == true && HasFactor(http.User) && Refused(http) is { } problem)
                    await problem.ExecuteAsync(http);
                else
                    await next(http);
            }
        );

    /// <summary>Why somebody may do nothing whose role asks for a factor that they have not; null where they may.</summary>
    public static IResult? Lacking(HttpContext http, bool isNeeded) =>
        isNeeded && !HasFactor(http.User) && Of(http) is not (Asked.Nothing or Asked.ForFirst) ? Needed : null;

    /// <summary>When the user proved last who they are; null for not in this session.</summary>
    public static Instant? ProvedAt(ClaimsPrincipal user) =>
        long.TryParse(user.FindFirstValue(FidClaims.ProvedAt), CultureInfo.InvariantCulture, out var seconds) ? Instant.FromUnixTimeSeconds(seconds) : null;

    public static bool HasFactor(ClaimsPrincipal user) => user.HasClaim(c => c.Type == FidClaims.HasFactor);

    private static IResult? Refused(HttpContext http)
    {
        var (asked, proved) = (Of(http), ProvedAt(http.User));
        if (asked == Asked.Nothing || IsForAnybody(http))
            return null;
        if (proved is not { } at)
            return Needed;
        var now = http.RequestServices.GetRequiredService<FirmClock>().Now;
        return asked is Asked.Again or Asked.ForFirst && at + Fresh < now
            ? Problems.Make(StatusCodes.Status403Forbidden, "prove-again", "Prove once more who you are.")
            : null;
    }

    private static IResult Needed => Problems.Make(StatusCodes.Status403Forbidden, "second-factor-needed", "Prove by a second factor who you are.");

    private static Asked Of(HttpContext http) => http.GetEndpoint()?.Metadata.GetMetadata<AsksFor>()?.When ?? Asked.Ever;

    private static bool IsForAnybody(HttpContext http) =>
        http.GetEndpoint() is not { } endpoint || endpoint.Metadata.GetMetadata<IAuthorizeData>()?.Policy is null or Access.Anybody;

    private sealed record AsksFor(Asked When);

    /// <summary>When an endpoint asks for a second factor.</summary>
    private enum Asked
    {
        /// <summary>Once a session.</summary>
        Ever,

        /// <summary>Not at all.</summary>
        Nothing,

        /// <summary>Again, where there is one.</summary>
        ForFirst,

        /// <summary>Again.</summary>
        Again,
    }
}
