using System.Security.Claims;
using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>Signing in and out, and who one is.</summary>
internal static class Session
{
    // What is checked against when there is no such account, so that it takes as long.
    private static readonly string NobodysPassword = new PasswordHasher<FidUser>().HashPassword(null!, Guid.NewGuid().ToString());

    public static void MapSession(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/session", Show).WhoMay(Access.Anybody);
        app.MapPost("/api/session", SignIn)
            .WhoMay(Access.Anybody)
            .RequireRateLimiting(RateLimits.SignIn)
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status429TooManyRequests);
        app.MapDelete("/api/session", SignOut).WhoMay(Access.SignedIn).BeforeSecondFactor();
        app.MapPut("/api/session/language", ChangeLanguage).WhoMay(Access.SignedIn).BeforeSecondFactor().ProducesProblem(StatusCodes.Status400BadRequest);
        app.MapPut("/api/session/password", ChangePassword)
            .WhoMay(Access.SignedIn)
            .RequireRateLimiting(RateLimits.SignIn)
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status429TooManyRequests);
        app.MapGet("/api/sessions", List).WhoMay(Access.SignedIn);
        app.MapDelete("/api/sessions", EndAll).WhoMay(Access.SignedIn);
        app.MapDelete("/api/sessions/{id:guid}", End).WhoMay(Access.SignedIn).ProducesProblem(404);
    }

    private static async Task<Ok<SessionResponse>> Show(ClaimsPrincipal principal, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        CrossSite.HandOut(http);
        return TypedResults.Ok(await Describe(principal, db, clock, cancellation));
    }

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request,
        UserManager<FidUser> users,
        IPasswordHasher<FidUser> hasher,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (request.Check() is { Length: > 0 } problems)
            return Problems.Invalid(problems);
        var address = http.Connection.RemoteIpAddress?.ToString() ?? "";
        if (await SignInPatience.WaitAsync(db, request.Email, address, clock.Now, cancellation) is { } wait)
            return Problems.Wait(http, wait);
        var user = await users.FindByEmailAsync(request.Email);
        var isRight =
            hasher.VerifyHashedPassword(user!, user?.PasswordHash ?? NobodysPassword, request.Password) != PasswordVerificationResult.Failed
            && user?.PasswordHash is not null;
        if (!isRight)
        {
            var failures = await SignInPatience.FailedAsync(db, request.Email, address, clock.Now, cancellation);
            await SecurityTrail.NoteAsync(
                db,
                clock,
                http,
                failures >= SignInPatience.Free ? SecurityTrail.SlowedDown : SecurityTrail.WrongPassword,
                user is null ? null : (user.Id, user.DisplayName),
                null,
                cancellation
            );
            return Problems.Make(StatusCodes.Status400BadRequest, "wrong-sign-in", "E-mail and password do not go together.");
        }
        await SignInPatience.ForgetAsync(db, request.Email, address, clock.Now, cancellation);
        if (user!.DisabledAt is not null)
        {
            await SecurityTrail.NoteAsync(db, clock, http, SecurityTrail.DisabledAccount, (user.Id, user.DisplayName), null, cancellation);
            return Problems.Make(StatusCodes.Status400BadRequest, "account-disabled", "This account is disabled. Ask your administrator.");
        }
        var principal = await BeginAsync(user.Id, user.DisplayName, db, clock, http, cancellation);
        return TypedResults.Ok(await Describe(principal, db, clock, cancellation));
    }

    /// <summary>Begins a session of somebody who has shown who they are.</summary>
    internal static async Task<ClaimsPrincipal> BeginAsync(
        Guid account,
        string name,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var (now, principal) = (clock.Now, SessionPrincipal.Of(account, name));
        await db.Users.Where(u => u.Id == account).ExecuteUpdateAsync(s => s.SetProperty(u => u.LastSignInAt, now), cancellation);
        await SecurityTrail.NoteAsync(db, principal, clock, http, SecurityTrail.SignedIn, null, cancellation);
        await BeginAsync(principal, db, clock, http, cancellation);
        return principal;
    }

    // A session of its own, whatever cookie came: one that somebody else planted in this browser must not become the new one's.
    private static async Task BeginAsync(ClaimsPrincipal principal, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        var now = clock.Now;
        if (Guid.TryParse(http.User.FindFirstValue(FidClaims.Session), out var there))
            await db.UserSessions.Where(s => s.Id == there && s.EndedAt == null).ExecuteUpdateAsync(s => s.SetProperty(x => x.EndedAt, now), cancellation);
        // The handler of this request remembers the session it came with; a fresh one finds that it has ended.
        var scheme = (await http.RequestServices.GetRequiredService<IAuthenticationSchemeProvider>().GetSchemeAsync(IdentityConstants.ApplicationScheme))!;
        var handler = (CookieAuthenticationHandler)ActivatorUtilities.CreateInstance(http.RequestServices, scheme.HandlerType);
        await handler.InitializeAsync(scheme, http);
        await handler.SignInAsync(principal, new AuthenticationProperties());
        http.User = principal;
        CrossSite.HandOut(http);
    }

    private static async Task<NoContent> SignOut(
        SignInManager<FidUser> signIn,
        ClaimsPrincipal user,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        await SecurityTrail.NoteAsync(db, user, clock, http, SecurityTrail.SignedOut, null, cancellation);
        await signIn.SignOutAsync();
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        CrossSite.HandOut(http);
        return TypedResults.NoContent();
    }

    /// <summary>The user's own sessions that go on, the latest first.</summary>
    private static async Task<Ok<OwnSession[]>> List(ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var (id, now, here) = (user.Id(), clock.Now, user.FindFirstValue(FidClaims.Session));
        var sessions = await db
            .UserSessions.AsNoTracking()
            .Where(s => s.UserId == id && s.EndedAt == null && s.EndsAt > now)
            .OrderByDescending(s => s.StartedAt)
            .Select(s => new
            {
                s.Id,
                s.StartedAt,
                s.EndsAt,
                s.Address,
                s.Browser,
            })
            .ToListAsync(cancellation);
        return TypedResults.Ok(sessions.Select(s => new OwnSession(s.Id, s.StartedAt, s.EndsAt, s.Address, s.Browser, s.Id.ToString() == here)).ToArray());
    }

    /// <summary>Ends one of the user's own sessions.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> End(
        Guid id,
        ClaimsPrincipal user,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var (own, now) = (user.Id(), clock.Now);
        if (
            await db
                .UserSessions.Where(s => s.Id == id && s.UserId == own && s.EndedAt == null)
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.EndedAt, now), cancellation) == 0
        )
            return Problems.NotFound();
        await SecurityTrail.NoteAsync(db, user, clock, http, SecurityTrail.SignedOut, id.ToString(), cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>Ends all of the user's sessions, this one too.</summary>
    private static async Task<NoContent> EndAll(
        SignInManager<FidUser> signIn,
        ClaimsPrincipal user,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        await AccountSessions.EndAllAsync(db, user.Id(), clock.Now, cancellation);
        await SecurityTrail.NoteAsync(db, user, clock, http, SecurityTrail.AllEnded, null, cancellation);
        await signIn.SignOutAsync();
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        CrossSite.HandOut(http);
        return TypedResults.NoContent();
    }

    /// <summary>Changes the user's own password. All their sessions end, and one begins anew in this browser.</summary>
    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> ChangePassword(
        PasswordRequest request,
        ClaimsPrincipal principal,
        UserManager<FidUser> users,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (request.Check() is { Length: > 0 } problems)
            return Problems.Invalid(problems);
        var user = (await users.GetUserAsync(principal))!;
        var address = http.Connection.RemoteIpAddress?.ToString() ?? "";
        if (await SignInPatience.WaitAsync(db, user.Email!, address, clock.Now, cancellation) is { } wait)
            return Problems.Wait(http, wait);
        if (!await users.CheckPasswordAsync(user, request.Current))
        {
            await SignInPatience.FailedAsync(db, user.Email!, address, clock.Now, cancellation);
            await SecurityTrail.NoteAsync(db, principal, clock, http, SecurityTrail.WrongPassword, "change", cancellation);
            return Problems.Invalid(new Core.Problem("/current", "wrong-password", "This is not your password."));
        }
        await using (var transaction = await db.Database.BeginTransactionAsync(cancellation))
        {
            var changed = await users.ChangePasswordAsync(user, request.Current, request.New);
            if (!changed.Succeeded)
                return Problems.Invalid([.. changed.Errors.Select(e => new Core.Problem("/new", "bad-value", e.Description))]);
            await AccountSessions.EndAllAsync(db, user.Id, clock.Now, cancellation);
            await SecurityTrail.NoteAsync(db, principal, clock, http, SecurityTrail.PasswordChanged, null, cancellation);
            await transaction.CommitAsync(cancellation);
        }
        if (user.DisabledAt is not null)
            return Problems.Forbidden();
        var anew = SessionPrincipal.Of(user.Id, user.DisplayName);
        await BeginAsync(anew, db, clock, http, cancellation);
        return TypedResults.Ok(await Describe(anew, db, clock, cancellation));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeLanguage(
        LanguageRequest request,
        ClaimsPrincipal principal,
        UserManager<FidUser> users
    )
    {
        if (AccountFacts.CheckLanguage("/language", request.Language) is { } problem)
            return Problems.Invalid(problem);
        var user = (await users.GetUserAsync(principal))!;
        user.Language = request.Language;
        await users.UpdateAsync(user);
        return TypedResults.NoContent();
    }

    internal static async Task<SessionResponse> Describe(ClaimsPrincipal principal, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var firm = await db.Firms.AsNoTracking().SingleOrDefaultAsync(cancellation);
        var today = await clock.TodayAsync(db, cancellation);
        var holder = principal.Identity?.IsAuthenticated == true ? await AccountHolder.FindAsync(db, principal.Shown(), today, cancellation) : null;
        var pending = holder is null ? null : await PendingAsync(principal, holder, db, cancellation);
        return new SessionResponse(
            firm is null ? null : new FirmResponse(firm.Name, firm.Currency),
            today,
            holder is null || pending is not null
                ? null
                : new UserResponse(
                    holder.AccountId,
                    holder.Name,
                    holder.Email ?? "",
                    holder.Language,
                    [.. Things.Rights.Where(r => holder.Rights.May(r.Action, r.Thing)).Select(r => $"{r.Action} {r.Thing}")],
                    await OwnRecordAsync(db, holder, clock, today, cancellation),
                    principal.Id() == holder.AccountId ? null : principal.FindFirstValue(FidClaims.DisplayName)
                ),
            pending
        );
    }

    // What somebody with the right password has yet to do before they are somebody here.
    private static async Task<PendingFactor?> PendingAsync(ClaimsPrincipal principal, AccountHolder holder, FidDb db, CancellationToken cancellation)
    {
        if (principal.Id() != holder.AccountId || SecondFactorGate.ProvedAt(principal) is not null)
            return null;
        var has = await db.Users.Where(u => u.Id == holder.AccountId).Select(u => u.SecondFactorSince != null).SingleAsync(cancellation);
        return has ? PendingFactor.Prove
            : holder.NeedsSecondFactor ? PendingFactor.Add
            : null;
    }

    // The record of their present stint, or of the last, where they may open it.
    private static async Task<Guid?> OwnRecordAsync(FidDb db, AccountHolder holder, FirmClock clock, LocalDate today, CancellationToken cancellation)
    {
        if (holder.Employments.Length == 0 || !holder.Rights.May(Actions.See, Things.Record))
            return null;
        var latest = await db
            .Employments.Where(e => holder.Employments.Contains(e.Id))
            .OrderByDescending(e => e.Start)
            .Select(e => e.Id)
            .FirstAsync(cancellation);
        var actor = Actor.Of(holder, holder.AccountId, null, null, clock, today);
        return await RecordAccess.FindAsync(actor, db, latest, tracked: false, cancellation) is null ? null : latest;
    }
}

public sealed record SignInRequest(string Email, string Password)
{
    internal Core.Problem[] Check() =>
        [.. new[] { RequiredText.Check("/email", Email, 254), PasswordRules.CheckEntered("/password", Password) }.OfType<Core.Problem>()];
}

/// <summary>A session of one's own.</summary>
/// <param name="Here">Whether it is the one that asks.</param>
public sealed record OwnSession(Guid Id, Instant StartedAt, Instant EndsAt, string Address, string Browser, bool Here);

public sealed record PasswordRequest(string Current, string New)
{
    internal Core.Problem[] Check() => [.. new[] { PasswordRules.CheckEntered("/current", Current), PasswordRules.Check("/new", New) }.OfType<Core.Problem>()];
}

public sealed record LanguageRequest(string Language);

/// <summary>Who is signed in, at which firm, on which day.</summary>
/// <param name="Firm">Null before the first run.</param>
/// <param name="Today">The firm's date.</param>
/// <param name="User">Null when nobody is signed in.</param>
/// <param name="SecondFactor">What is to be done before somebody is signed in; null mostly.</param>
public sealed record SessionResponse(FirmResponse? Firm, LocalDate Today, UserResponse? User, PendingFactor? SecondFactor);

/// <summary>What is to be done with a second factor before somebody is signed in.</summary>
public enum PendingFactor
{
    /// <summary>Prove one.</summary>
    Prove,

    /// <summary>Add a first one: a role asks for it.</summary>
    Add,
}

public sealed record FirmResponse(string Name, string Currency);

/// <param name="Rights">What they may do, of all people or of some: an action and a thing, such as "edit template".</param>
/// <param name="OwnRecord">The employment whose record is their own, where they may open it.</param>
/// <param name="ViewedBy">Who looks at Fid as this user does; null mostly.</param>
public sealed record UserResponse(Guid Id, string Name, string Email, string Language, string[] Rights, Guid? OwnRecord, string? ViewedBy);
