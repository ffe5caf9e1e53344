using Fid.Acts;
using Fid.Acts.Setup;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Admin;

/// <summary>The first visit to an empty Fid: the firm and its first administrator, with a token that only the console shows.</summary>
internal static class FirstRun
{
    public static void MapFirstRun(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/first-run", Create).WhoMay(Access.Anybody).RequireRateLimiting(RateLimits.SignIn).ProducesProblem(400).ProducesProblem(409);

    private static async Task<Results<NoContent, ProblemHttpResult>> Create(
        SetUpFirmRequest request,
        SetUpFirm setUp,
        FirmClock clock,
        CancellationToken cancellation
    )
    {
        // Nobody has an account yet.
        var visitor = Actor.Visitor(clock);
        return (await setUp.DoAsync(request, visitor, cancellation)).Answer();
    }
}
