using System.Security.Claims;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.SecondFactors;
using Fid.Data;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>One's own second factors: an authenticator application, passkeys, and codes for the day on which both are lost.</summary>
internal static class SecondFactorEndpoints
{
    private const int LongestCode = 40,
        LongestAnswer = 20_000;

    public static void MapSecondFactor(this IEndpointRouteBuilder app)
    {
        var factor = app.MapGroup("/api/session/second-factor");
        factor.MapGet("", Show).WhoMay(Access.SignedIn).BeforeSecondFactor();
        factor.MapPost("/again", () => TypedResults.NoContent()).WhoMay(Access.SignedIn).AsksAgain();
        factor.MapPost("/prove", Prove).WhoMay(Access.SignedIn).BeforeSecondFactor().Guarded();
        factor.MapPost("/authenticator/begin", BeginAuthenticator).WhoMay(Access.SignedIn).AddsSecondFactor().Guarded();
        factor.MapPost("/authenticator", AddAuthenticator).WhoMay(Access.SignedIn).AddsSecondFactor().Guarded();
        factor.MapDelete("/authenticator", RemoveAuthenticator).WhoMay(Access.SignedIn).AsksAgain().Guarded();
        factor.MapPost("/recovery-codes", Renew).WhoMay(Access.SignedIn).AsksAgain().Guarded();
        factor.MapPost("/passkeys/begin", BeginPasskey).WhoMay(Access.SignedIn).AddsSecondFactor().Guarded();
        factor.MapPost("/passkeys", AddPasskey).WhoMay(Access.SignedIn).AddsSecondFactor().Guarded();
        factor.MapPost("/passkeys/proof", BeginPasskeyProof).WhoMay(Access.SignedIn).BeforeSecondFactor().Guarded();
        factor.MapPost("/passkeys/prove", ProvePasskey).WhoMay(Access.SignedIn).BeforeSecondFactor().Guarded();
        factor.MapDelete("/passkeys/{id}", RemovePasskey).WhoMay(Access.SignedIn).AsksAgain().Guarded();
    }

    private static void Guarded(this RouteHandlerBuilder endpoint) =>
        endpoint.ProducesProblem(400).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409).ProducesProblem(429);

    private static async Task<Ok<SecondFactorResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var account = await db.Users.AsNoTracking().SingleAsync(u => u.Id == actor.Account, cancellation);
        var passkeys = await db.Passkeys.AsNoTracking().Where(p => p.AccountId == account.Id).OrderBy(p => p.MadeAt).ToListAsync(cancellation);
        return TypedResults.Ok(
            new SecondFactorResponse(
                account.SecondFactorSince,
                account.AuthenticatorKey is not null,
                [.. passkeys.Select(p => new PasskeyResponse(Base64Url(p.Id), p.Name, p.MadeAt, p.UsedAt))],
                account.RecoveryCodes.Length
            )
        );
    }

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> Prove(
        FactorCodeRequest request,
        Actor actor,
        ClaimsPrincipal user,
        FidDb db,
        ProveSecondFactor prove,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    ) =>
        request.Code.Length > LongestCode
            ? Problems.Of(ProveSecondFactor.Wrong)
            : await ProvedAsync(
                () => prove.DoAsync(new CodeRequest(SessionOf(user), request.Code), actor, cancellation),
                new Proof(actor, user, db, clock, http),
                cancellation
            );

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> ProvePasskey(
        PasskeyAnswer request,
        Actor actor,
        ClaimsPrincipal user,
        FidDb db,
        ProvePasskey prove,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    ) =>
        await ProvedAsync(
            () => prove.DoAsync(new PasskeyRequest(SessionOf(user), Bounded(request.Answer), null, PlaceOf(http)), actor, cancellation),
            new Proof(actor, user, db, clock, http),
            cancellation
        );

    // Whoever tries one code after the other is slowed down as with passwords.
    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> ProvedAsync(
        Func<Task<ActResult>> prove,
        Proof proof,
        CancellationToken cancellation
    )
    {
        var (actor, user, db, clock, http) = proof;
        var (key, address) = ($"second-factor {actor.Account}", http.Connection.RemoteIpAddress?.ToString() ?? "");
        if (await SignInPatience.WaitAsync(db, key, address, clock.Now, cancellation) is { } wait)
            return Problems.Wait(http, wait);
        if ((await prove()).Refusal is { } refusal)
        {
            db.ChangeTracker.Clear();
            if (refusal.Kind == RefusalKind.Invalid)
            {
                await SignInPatience.FailedAsync(db, key, address, clock.Now, cancellation);
                await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.WrongFactor, null, cancellation);
            }
            return Problems.Of(refusal);
        }
        await SignInPatience.ForgetAsync(db, key, address, clock.Now, cancellation);
        return TypedResults.Ok(await DescribeAsync(user, db, clock, cancellation));
    }

    private static async Task<Results<Ok<AuthenticatorKey>, ProblemHttpResult>> BeginAuthenticator(
        Actor actor,
        ClaimsPrincipal user,
        BeginAuthenticator begin,
        CancellationToken cancellation
    ) =>
        (await begin.DoAsync(new SessionRequest(SessionOf(user)), actor, cancellation)).IsDone(out var begun, out var refusal)
            ? TypedResults.Ok(new AuthenticatorKey(begun.Key, begun.Address))
            : Problems.Of(refusal);

    private static async Task<Results<Ok<AddedFactor>, ProblemHttpResult>> AddAuthenticator(
        FactorCodeRequest request,
        Actor actor,
        ClaimsPrincipal user,
        AddAuthenticator add,
        CancellationToken cancellation
    ) =>
        request.Code.Length > LongestCode
            ? Problems.Of(ProveSecondFactor.Wrong)
            : Added(await add.DoAsync(new CodeRequest(SessionOf(user), request.Code), actor, cancellation));

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAuthenticator(
        Actor actor,
        ClaimsPrincipal user,
        RemoveFactor remove,
        CancellationToken cancellation
    ) => (await remove.DoAsync(new RemoveFactorRequest(SessionOf(user), null), actor, cancellation)).Answer();

    private static async Task<Results<Ok<AddedFactor>, ProblemHttpResult>> Renew(
        Actor actor,
        ClaimsPrincipal user,
        RenewRecoveryCodes renew,
        CancellationToken cancellation
    ) => Added(await renew.DoAsync(new SessionRequest(SessionOf(user)), actor, cancellation));

    private static async Task<Results<Ok<JsonObject>, ProblemHttpResult>> BeginPasskey(
        Actor actor,
        ClaimsPrincipal user,
        BeginPasskey begin,
        HttpContext http,
        CancellationToken cancellation
    ) => Options(await begin.DoAsync(new BeginPasskeyRequest(SessionOf(user), PlaceOf(http)), actor, cancellation));

    private static async Task<Results<Ok<AddedFactor>, ProblemHttpResult>> AddPasskey(
        NewPasskey request,
        Actor actor,
        ClaimsPrincipal user,
        AddPasskey add,
        HttpContext http,
        CancellationToken cancellation
    ) => Added(await add.DoAsync(new PasskeyRequest(SessionOf(user), Bounded(request.Answer), request.Name, PlaceOf(http)), actor, cancellation));

    private static async Task<Results<Ok<JsonObject>, ProblemHttpResult>> BeginPasskeyProof(
        Actor actor,
        ClaimsPrincipal user,
        BeginPasskeyProof begin,
        HttpContext http,
        CancellationToken cancellation
    ) => Options(await begin.DoAsync(new BeginPasskeyRequest(SessionOf(user), PlaceOf(http)), actor, cancellation));

    private static async Task<Results<NoContent, ProblemHttpResult>> RemovePasskey(
        string id,
        Actor actor,
        ClaimsPrincipal user,
        RemoveFactor remove,
        CancellationToken cancellation
    )
    {
        return System.Buffers.Text.Base64Url.IsValid(id)
            ? (await remove.DoAsync(new RemoveFactorRequest(SessionOf(user), System.Buffers.Text.Base64Url.DecodeFromChars(id)), actor, cancellation)).Answer()
            : Problems.NotFound();
    }

    private static Results<Ok<AddedFactor>, ProblemHttpResult> Added(ActResult<string[]> result) =>
        result.IsDone(out var codes, out var refusal) ? TypedResults.Ok(new AddedFactor(codes)) : Problems.Of(refusal);

    private static Results<Ok<JsonObject>, ProblemHttpResult> Options(ActResult<string> result) =>
        result.IsDone(out var options, out var refusal) ? TypedResults.Ok(JsonNode.Parse(options)!.AsObject()) : Problems.Of(refusal);

    // The proof is in the database, and not yet in what this request came with.
    private static async Task<SessionResponse> DescribeAsync(ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var now = clock.Now.ToUnixTimeSeconds().ToString(System.Globalization.CultureInfo.InvariantCulture);
        ((ClaimsIdentity)user.Identity!).AddClaim(new Claim(FidClaims.ProvedAt, now));
        return await Session.Describe(user, db, clock, cancellation);
    }

    private static string Bounded(JsonObject answer) => answer.ToJsonString() is { Length: <= LongestAnswer } text ? text : "{}";

    private static string Base64Url(byte[] bytes) => System.Buffers.Text.Base64Url.EncodeToString(bytes);

    private static Guid SessionOf(ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(FidClaims.Session)!);

    private static RelyingParty PlaceOf(HttpContext http) => new(http.Request.Host.Host, $"{http.Request.Scheme}://{http.Request.Host}");

    private sealed record Proof(Actor Actor, ClaimsPrincipal User, FidDb Db, FirmClock Clock, HttpContext Http);
}

/// <summary>One's own second factors.</summary>
/// <param name="Since">Since when there is one; null for none.</param>
/// <param name="Authenticator">Whether there is an authenticator application.</param>
/// <param name="RecoveryCodes">How many recovery codes are left.</param>
public sealed record SecondFactorResponse(Instant? Since, bool Authenticator, PasskeyResponse[] Passkeys, int RecoveryCodes);

/// <param name="Id">The credential's id, in Base64url (RFC 4648).</param>
public sealed record PasskeyResponse(string Id, string Name, Instant MadeAt, Instant? UsedAt);

/// <param name="Code">Six digits of the authenticator, or a recovery code.</param>
public sealed record FactorCodeRequest(string Code);

/// <param name="Key">As it is typed into an authenticator.</param>
/// <param name="Address">By which an authenticator takes it, as in a square code.</param>
public sealed record AuthenticatorKey(string Key, string Address);

/// <param name="RecoveryCodes">Codes that are told this once; none where they were told before.</param>
public sealed record AddedFactor(string[] RecoveryCodes);

/// <param name="Answer">What the device answered: PublicKeyCredential as JSON (WebAuthn, 5.1).</param>
public sealed record PasskeyAnswer(JsonObject Answer);

/// <param name="Name">What it is to be called.</param>
public sealed record NewPasskey(JsonObject Answer, string Name);
