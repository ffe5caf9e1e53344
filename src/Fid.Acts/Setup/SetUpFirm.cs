using System.Security.Cryptography;
using System.Text;
using Fid.Acts.Accounts;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.People;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Setup;

/// <summary>Sets up the firm and its first administrator: who has the token that only the console shows may.</summary>
public sealed class SetUpFirm(FidDb db, UserManager<FidUser> users, SensitiveValues sensitive)
{
    private static readonly string[] FirstRoles = [ShippedRoles.Administrator, ShippedRoles.Coordinator];

    private const int LongestName = 200,
        LongestEmail = 254,
        LongestToken = 100;

    /// <summary>Where there is no firm yet, makes a new token; null where there is one.</summary>
    public static async Task<string?> PrepareAsync(FidDb db, FirmClock clock)
    {
        if (await db.Firms.AnyAsync())
            return null;
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(12));
        db.SetupTokens.Add(new SetupToken { Hash = Hash(token), CreatedAt = clock.Now });
        await db.SaveChangesAsync();
        return token;
    }

    /// <param name="actor">Whoever visits first; nothing is known of them.</param>
    public async Task<ActResult> DoAsync(SetUpFirmRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Check(request).ToList() is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, "", cancellation);
        if (await db.Firms.AnyAsync(cancellation))
            return Refusal.Conflict("firm-exists", "The firm is already set up. Sign in instead.");
        var hash = Hash(request.Token.Trim());
        if (!await db.SetupTokens.AnyAsync(t => t.Hash == hash, cancellation))
            return Refusal.Invalid("/token", "wrong-token", "This is not the token that was printed when Fid was started.");

        var firm = new Firm
        {
            Name = request.FirmName.Trim(),
            Currency = request.Currency,
            TimeZone = request.TimeZone,
        };
        db.Firms.Add(firm);
        db.Stages.AddRange(Seed.Stages());
        var user = new FidUser
        {
            UserName = request.Email.Trim(),
            Email = request.Email.Trim(),
            DisplayName = request.Name.Trim(),
            MadeAt = actor.Clock.Now,
        };
        var made = await users.CreateAsync(user, request.Password);
        if (!made.Succeeded)
            return Refusal.Invalid([
                .. made.Errors.Select(e => new Problem(
                    e.Code.Contains("Password", StringComparison.Ordinal) ? "/password" : "/email",
                    "bad-value",
                    e.Description
                )),
            ]);
        var author = new Author(user.Id, user.DisplayName, actor.Clock.Now, "firstRun");
        foreach (var role in FirstRoles)
            db.RoleGrants.Add(AccountInHand.Grant(user.Id, role, author.At, author.Name));
        act.Note(author.Change("firm.created", firm.Id));
        await db.SetupTokens.ExecuteDeleteAsync(cancellation);
        await db.SaveChangesAsync(cancellation);
        await sensitive.PrepareAsync(db, cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    // In the order in which they are asked for.
    private static IEnumerable<Problem> Check(SetUpFirmRequest request) =>
        new[]
        {
            RequiredText.Check("/token", request.Token, LongestToken),
            RequiredText.Check("/firmName", request.FirmName, LongestName),
            request.Currency.Length == 3 && request.Currency.All(char.IsAsciiLetterUpper)
                ? null
                : new Problem("/currency", "bad-value", "Enter the three letters of a currency, such as EUR."),
            DateTimeZoneProviders.Tzdb.GetZoneOrNull(request.TimeZone) is not null
                ? null
                : new Problem("/timeZone", "bad-value", "Enter a time zone, such as Europe/Dublin."),
            RequiredText.Check("/name", request.Name, LongestName),
            RequiredText.Check("/email", request.Email, LongestEmail)
                ?? (TextRules.IsEmail(request.Email) ? null : new Problem("/email", "bad-value", "Enter an e-mail address, such as name@example.org.")),
            PasswordRules.Check("/password", request.Password),
        }.OfType<Problem>();

    private static string Hash(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}

public sealed record SetUpFirmRequest(string Token, string FirmName, string Currency, string TimeZone, string Name, string Email, string Password);
