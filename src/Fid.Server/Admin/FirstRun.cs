using System.Security.Cryptography;
using System.Text;
using Fid.Acts;
using Fid.Core;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Server.Platform;
using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>The first visit to an empty Fid: the firm and its first administrator, with a token that only the console shows.</summary>
internal static class FirstRun
{
    public static void MapFirstRun(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/first-run", Create).WhoMay(Access.Anybody).RequireRateLimiting(Session.SignInLimit).Validated<FirstRunRequest>()
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status409Conflict);

    /// <summary>Makes the roles, and where there is no firm yet a new token, which it prints.</summary>
    public static async Task PrepareAsync(FidDb db, FirmClock clock)
    {
        await Seed.RolesAsync(db);
        if (await db.Firms.AnyAsync()) return;
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(12));
        db.SetupTokens.Add(new SetupToken { Hash = Hash(token), CreatedAt = clock.Now });
        await db.SaveChangesAsync();
        Console.WriteLine($"There is no firm here yet. The first visit creates it with this one-time token: {token}");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Create(
        FirstRunRequest request, FidDb db, UserManager<FidUser> users, Fid.Data.People.SensitiveValues sensitive, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await db.Firms.AnyAsync(cancellation)) return Problems.Conflict("firm-exists", "The firm is already set up. Sign in instead.");
        var hash = Hash(request.Token.Trim());
        if (!await db.SetupTokens.AnyAsync(t => t.Hash == hash, cancellation))
            return Problems.Invalid(new Problem("/token", "wrong-token", "This is not the token that was printed when Fid was started."));

        var firm = new Firm { Name = request.FirmName.Trim(), Currency = request.Currency, TimeZone = request.TimeZone };
        db.Firms.Add(firm);
        db.Stages.AddRange(Seed.Stages());
        var user = new FidUser { UserName = request.Email.Trim(), Email = request.Email.Trim(), DisplayName = request.Name.Trim() };
        var made = await users.CreateAsync(user, request.Password);
        if (!made.Succeeded)
            return Problems.Invalid([.. made.Errors.Select(e => new Problem(e.Code.Contains("Password", StringComparison.Ordinal) ? "/password" : "/email", "bad-value", e.Description))]);
        await users.AddToRolesAsync(user, [Roles.Administrator, Roles.Coordinator]);
        db.Changes.Add(new Author(user.Id, user.DisplayName, clock.Now, "firstRun").Change("firm.created", firm.Id));
        await db.SetupTokens.ExecuteDeleteAsync(cancellation);
        await db.SaveChangesAsync(cancellation);
        await sensitive.PrepareAsync(db, cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static string Hash(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}

public sealed record FirstRunRequest(string Token, string FirmName, string Currency, string TimeZone, string Name, string Email, string Password);

internal sealed class FirstRunValidator : AbstractValidator<FirstRunRequest>
{
    public FirstRunValidator()
    {
        RuleFor(r => r.Token).Text(100);
        RuleFor(r => r.FirmName).Text(200);
        RuleFor(r => r.Currency).Must(c => c.Length == 3 && c.All(char.IsAsciiLetterUpper))
            .WithErrorCode("bad-value").WithMessage("Enter the three letters of a currency, such as EUR.");
        RuleFor(r => r.TimeZone).Must(z => DateTimeZoneProviders.Tzdb.GetZoneOrNull(z) is not null)
            .WithErrorCode("bad-value").WithMessage("Enter a time zone, such as Europe/Dublin.");
        RuleFor(r => r.Name).Text(200);
        RuleFor(r => r.Email).Text(254);
        RuleFor(r => r.Email).Must(Core.Texts.TextRules.IsEmail).WithErrorCode("bad-value").WithMessage("Enter an e-mail address, such as name@example.org.");
        RuleFor(r => r.Password).MinimumLength(12).WithErrorCode("too-short").WithMessage("Enter at least 12 characters.")
            .MaximumLength(200).WithErrorCode("too-long").WithMessage("Enter at most 200 characters.");
    }
}
