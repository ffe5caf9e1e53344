using System.Security.Claims;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Platform;

/// <summary>Looking at Fid as somebody else does: whoever looks after roles sees what they come to. It is on the trail, nothing can be changed
/// meanwhile, nothing taken out, and nothing is seen that the one who looks may not see themselves.</summary>
internal static class ViewAs
{
    private const string End = "/api/session/as";

    public static void MapViewAs(this IEndpointRouteBuilder app)
    {
        app.MapPost(End, Begin).WhoMay(Actions.StandFor, Things.Account).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete(End, Stop).WhoMay(Access.SignedIn);
    }

    /// <summary>Says of an endpoint that it only reads, though it is sent what to work with.</summary>
    public static RouteHandlerBuilder OnlyReads(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new ReadsOnly());

    /// <summary>Refuses what changes something or takes it out, while somebody looks as somebody else does.</summary>
    public static void UseViewAs(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                if (http.User.FindFirst(FidClaims.ViewsAs) is { } claim && http.GetEndpoint() is { } endpoint)
                {
                    // Whoever may no longer look as somebody else does is themselves again with the next request.
                    var (db, clock) = (http.RequestServices.GetRequiredService<FidDb>(), http.RequestServices.GetRequiredService<FirmClock>());
                    if (!await MayAsync(http.User.Id(), http.User.Shown(), db, clock, http.RequestAborted))
                    {
                        ((ClaimsIdentity)http.User.Identity!).RemoveClaim(claim);
                        await SetAsync(http.User, db, null, http.RequestAborted);
                        await next(http);
                        return;
                    }
                    if (IsOpen(http, endpoint))
                    {
                        await next(http);
                        return;
                    }
                    await Problems
                        .Make(StatusCodes.Status403Forbidden, "view-only", "You are looking as somebody else does. Go back to yourself to do this.")
                        .ExecuteAsync(http);
                    return;
                }
                await next(http);
            }
        );

    private static bool IsOpen(HttpContext http, Endpoint endpoint) =>
        endpoint.Metadata.GetMetadata<ReadsOnly>() is not null
        || (HttpMethods.IsDelete(http.Request.Method) && (http.Request.Path == End || http.Request.Path == "/api/session"))
        || (
            (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method))
            && http.Request.Path.Value?.EndsWith(".xlsx", StringComparison.OrdinalIgnoreCase) != true
        );

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> Begin(
        ViewAsRequest request,
        Actor actor,
        ClaimsPrincipal user,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (request.Account == user.Id() || await AccountHolder.FindAsync(db, request.Account, actor.Today, cancellation) is not { Email: not null } other)
            return Problems.NotFound();
        if (!await MayAsync(user.Id(), request.Account, db, clock, cancellation))
            return Problems.Make(StatusCodes.Status409Conflict, "sees-more", "They may see what you may not, so you cannot look as they do.");
        await SecurityTrail.NoteAsync(db, user, clock, http, SecurityTrail.ViewedAs, other.Name, cancellation);
        await SetAsync(user, db, request.Account, cancellation);
        ((ClaimsIdentity)user.Identity!).AddClaim(new Claim(FidClaims.ViewsAs, request.Account.ToString()));
        return TypedResults.Ok(await Session.Describe(user, db, clock, cancellation));
    }

    private static async Task<bool> MayAsync(Guid viewer, Guid other, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        return await AccountHolder.FindAsync(db, viewer, today, cancellation) is { } own
            && own.Rights.May(Actions.StandFor, Things.Account)
            && await AccountHolder.FindAsync(db, other, today, cancellation) is { } shown
            && ViewingAs.SeesAllOf(own.Rights, shown.Rights, (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set);
    }

    private static async Task<Ok<SessionResponse>> Stop(ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        await SetAsync(user, db, null, cancellation);
        if (user.FindFirst(FidClaims.ViewsAs) is { } claim)
            ((ClaimsIdentity)user.Identity!).RemoveClaim(claim);
        return TypedResults.Ok(await Session.Describe(user, db, clock, cancellation));
    }

    private static Task<int> SetAsync(ClaimsPrincipal user, FidDb db, Guid? other, CancellationToken cancellation)
    {
        var session = Guid.Parse(user.FindFirstValue(FidClaims.Session)!);
        return db.UserSessions.Where(s => s.Id == session).ExecuteUpdateAsync(s => s.SetProperty(x => x.ViewsAsId, other), cancellation);
    }

    private sealed record ReadsOnly;
}

/// <param name="Account">As whose user.</param>
internal sealed record ViewAsRequest(Guid Account);
