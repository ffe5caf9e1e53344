using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Admin;

/// <summary>What somebody does who was given a link: looks whose account it is for, and sets the password. What the link holds comes
/// in the body, never in an address: addresses are written into logs.</summary>
internal static class InvitationEndpoints
{
    private const int LongestToken = 100;

    public static void MapInvitations(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/invitations/look", Look).WhoMay(Access.Anybody).RequireRateLimiting(RateLimits.SignIn).ProducesProblem(404).ProducesProblem(429);
        app.MapPost("/api/invitations/password", Set)
            .WhoMay(Access.Anybody)
            .RequireRateLimiting(RateLimits.SignIn)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(429);
    }

    private static async Task<Results<Ok<InvitationResponse>, ProblemHttpResult>> Look(
        InvitationLink request,
        FidDb db,
        FirmClock clock,
        CancellationToken cancellation
    )
    {
        if (request.Token.Length > LongestToken || await AccountLinks.FindAsync(db, request.Token, clock.Now, cancellation) is not { } account)
            return Problems.Of(SetPassword.Spent);
        var firm = await db.Firms.AsNoTracking().Select(f => f.Name).SingleAsync(cancellation);
        return TypedResults.Ok(new InvitationResponse(firm, account.DisplayName, account.Email!, account.Language, account.PasswordHash is null));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Set(
        PasswordByLink request,
        SetPassword set,
        FirmClock clock,
        CancellationToken cancellation
    )
    {
        if (request.Token.Length > LongestToken)
            return Problems.Of(SetPassword.Spent);
        // Nothing is known of the user who has the link but that they have it.
        var holder = Actor.Visitor(clock);
        return (await set.DoAsync(new SetPasswordRequest(request.Token, request.Password), holder, cancellation)).Answer();
    }
}

/// <param name="Token">What the link holds, after the #.</param>
public sealed record InvitationLink(string Token);

/// <summary>Whose account a link is for.</summary>
/// <param name="IsNew">Whether they have had no password so far.</param>
public sealed record InvitationResponse(string Firm, string Name, string Email, string Language, bool IsNew);

/// <param name="Token">What the link holds, after the #.</param>
public sealed record PasswordByLink(string Token, string Password);
