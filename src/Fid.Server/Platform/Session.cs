using System.Security.Claims;
using Fid.Data;
using Fid.Data.Firms;
using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>Signing in and out, and who one is.</summary>
internal static class Session
{
    public const string SignInLimit = "sign-in";

    public static void MapSession(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/session", Show).WhoMay(Access.Anybody);
        app.MapPost("/api/session", SignIn).WhoMay(Access.Anybody).RequireRateLimiting(SignInLimit).Validated<SignInRequest>()
            .ProducesProblem(StatusCodes.Status400BadRequest);
        app.MapDelete("/api/session", SignOut).WhoMay(Access.SignedIn);
        app.MapPut("/api/session/language", ChangeLanguage).WhoMay(Access.SignedIn).Validated<LanguageRequest>();
    }

    private static async Task<Ok<SessionResponse>> Show(ClaimsPrincipal principal, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        CrossSite.HandOut(http);
        return TypedResults.Ok(await Describe(principal, db, clock, cancellation));
    }

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request, SignInManager<FidUser> signIn, UserManager<FidUser> users, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        var user = await users.FindByEmailAsync(request.Email);
        var result = user is null ? SignInResult.Failed : await signIn.CheckPasswordSignInAsync(user, request.Password, lockoutOnFailure: true);
        if (result.IsLockedOut)
            return Problems.Make(StatusCodes.Status400BadRequest, "locked-out", "Too many wrong passwords. Try again in five minutes.");
        if (!result.Succeeded)
            return Problems.Make(StatusCodes.Status400BadRequest, "wrong-sign-in", "E-mail and password do not go together.");

        var principal = await signIn.CreateUserPrincipalAsync(user!);
        await signIn.SignInAsync(user!, isPersistent: false);
        http.User = principal;
        CrossSite.HandOut(http);
        return TypedResults.Ok(await Describe(principal, db, clock, cancellation));
    }

    private static async Task<NoContent> SignOut(SignInManager<FidUser> signIn, HttpContext http)
    {
        await signIn.SignOutAsync();
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        CrossSite.HandOut(http);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ChangeLanguage(LanguageRequest request, ClaimsPrincipal principal, UserManager<FidUser> users)
    {
        var user = (await users.GetUserAsync(principal))!;
        user.Language = request.Language;
        await users.UpdateAsync(user);
        return TypedResults.NoContent();
    }

    internal static async Task<SessionResponse> Describe(ClaimsPrincipal principal, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var firm = await db.Firms.AsNoTracking().SingleOrDefaultAsync(cancellation);
        var today = await clock.TodayAsync(db, cancellation);
        var user = principal.Identity?.IsAuthenticated == true
            ? await db.Users.AsNoTracking().FirstOrDefaultAsync(u => u.Id == principal.Id(), cancellation)
            : null;
        return new SessionResponse(
            firm is null ? null : new FirmResponse(firm.Name, firm.Currency),
            today,
            user is null ? null : new UserResponse(user.Id, user.DisplayName, user.Email!, user.Language, [.. principal.FindAll(ClaimTypes.Role).Select(c => c.Value)]));
    }
}

public sealed record SignInRequest(string Email, string Password);

internal sealed class SignInValidator : AbstractValidator<SignInRequest>
{
    public SignInValidator()
    {
        RuleFor(r => r.Email).Text(254);
        RuleFor(r => r.Password).NotEmpty().MaximumLength(200);
    }
}

public sealed record LanguageRequest(string Language);

internal sealed class LanguageValidator : AbstractValidator<LanguageRequest>
{
    public LanguageValidator() => RuleFor(r => r.Language).Must(l => l is "en" or "de").WithMessage("Choose en or de.").WithErrorCode("bad-value");
}

/// <summary>Who is signed in, at which firm, on which day.</summary>
/// <param name="Firm">Null before the first run.</param>
/// <param name="Today">The firm's date.</param>
/// <param name="User">Null when nobody is signed in.</param>
public sealed record SessionResponse(FirmResponse? Firm, LocalDate Today, UserResponse? User);

public sealed record FirmResponse(string Name, string Currency);

public sealed record UserResponse(Guid Id, string Name, string Email, string Language, string[] Roles);
