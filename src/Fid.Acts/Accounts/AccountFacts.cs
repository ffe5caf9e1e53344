using Fid.Acts.Rights;
using Fid.Core;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>What an administrator says of an account.</summary>
/// <param name="Name">How the account's user is called.</param>
/// <param name="Email">What they sign in with.</param>
/// <param name="Roles">The roles they have; at least one.</param>
/// <param name="Teams">Codes of the teams whose tasks they do.</param>
/// <param name="Employment">A stint of the person they are; null where the firm has no record of them.</param>
/// <param name="Language">The language of the interface: "en" or "de".</param>
public sealed record AccountFacts(string Name, string Email, IReadOnlyList<string> Roles, IReadOnlyList<string> Teams, Guid? Employment, string Language)
{
    /// <summary>The languages there are.</summary>
    public static IReadOnlyList<string> Languages { get; } = ["en", "de"];

    /// <summary>What is wrong with a choice of language; null for nothing.</summary>
    public static Problem? CheckLanguage(string pointer, string language) =>
        Languages.Contains(language) ? null : new Problem(pointer, "bad-value", $"Choose {string.Join(" or ", Languages)}.");

    /// <summary>Puts what was said into an account that is held, or says what is wrong with it.</summary>
    /// <param name="account">The account, tracked or new.</param>
    internal async Task<IReadOnlyList<Problem>> PutIntoAsync(FidUser account, FidDb db, CancellationToken cancellation)
    {
        var problems = Check().ToList();
        var known = await LiveRights.LiveAsync(db, cancellation);
        for (var i = 0; i < Math.Min(Roles.Count, MostRoles); i++)
            if (AccountInHand.CheckRole($"/roles/{i}", Roles[i], known) is { } wrong)
                problems.Add(wrong);
        // More than there can be is not looked up.
        if (problems.Exists(p => p.Code is "too-many" or "too-long"))
            return problems;
        var (name, email) = (Clean(Name), Clean(Email));
        var normalized = email.ToUpperInvariant();
        if (await db.Users.AnyAsync(u => u.Id != account.Id && u.NormalizedEmail == normalized, cancellation))
            problems.Add(new Problem("/email", "taken", "Another account signs in with this address."));
        string[] teams = [.. Teams.Distinct(StringComparer.Ordinal)];
        var listed = await db
            .ListEntries.Where(e => e.List == "teams" && teams.Contains(e.Code) && (!e.Retired || account.Teams.Contains(e.Code)))
            .Select(e => e.Code)
            .ToListAsync(cancellation);
        problems.AddRange(teams.Except(listed).Select(t => new Problem($"/teams/{Teams.ToList().IndexOf(t)}", "unknown-entry", "Choose a team of the list.")));
        Guid? person = null;
        if (Employment is { } stint)
        {
            person = await db.Employments.Where(e => e.Id == stint).Select(e => (Guid?)e.PersonId).SingleOrDefaultAsync(cancellation);
            if (person is null)
                problems.Add(new Problem("/employment", "unknown-person", "Choose somebody the firm has a record of."));
            else if (person != account.PersonId && await db.Users.AnyAsync(u => u.Id != account.Id && u.PersonId == person, cancellation))
                problems.Add(new Problem("/employment", "taken", "This person has an account already. Look for it by their name."));
        }
        if (problems.Count > 0)
            return problems;
        (account.DisplayName, account.Teams, account.PersonId, account.Language) = (name, teams, person, Language);
        account.SignsInWith(email);
        return [];
    }

    private IEnumerable<Problem> Check()
    {
        if (RequiredText.Check("/name", Name, FidUser.LongestName) is { } name)
            yield return name;
        if (RequiredText.Check("/email", Email, FidUser.LongestEmail) is { } email)
            yield return email;
        else if (!TextRules.IsEmail(Email.Trim()))
            yield return new Problem("/email", "bad-value", "Enter an e-mail address, such as name@example.org.");
        if (Roles.Count == 0)
            yield return new Problem("/roles", "missing", "Choose at least one role.");
        if (Roles.Count > MostRoles)
            yield return new Problem("/roles", "too-many", $"Choose at most {MostRoles} roles.");
        if (Teams.Count > MostTeams)
            yield return new Problem("/teams", "too-many", $"Choose at most {MostTeams} teams.");
        if (CheckLanguage("/language", Language) is { } language)
            yield return language;
    }

    private const int MostRoles = 20,
        MostTeams = 100;

    private static string Clean(string text) => TextRules.TryClean(text, out var clean) ? clean : text.Trim();
}
