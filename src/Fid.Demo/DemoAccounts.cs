using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.People;
using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace Fid.Demo;

/// <summary>Who can sign in to the demonstration, all with the same password.</summary>
internal static class DemoAccounts
{
    public const string Password = "halyard-sound-ferries";

    private static readonly (string Email, string Name, string Family, string[] Roles, string[] Teams)[] Accounts =
    [
        ("orla@halyard.example", "Orla Dunmore", "Dunmore", [ShippedRoles.Coordinator], []),
        ("piet@halyard.example", "Piet Haverkort", "Haverkort", [ShippedRoles.Administrator], []),
        ("ruth@halyard.example", "Ruth Abara", "Abara", [ShippedRoles.Payroll], ["payroll"]),
        ("callum@halyard.example", "Callum Reyes", "Reyes", [ShippedRoles.Manager], []),
        ("nils@halyard.example", "Nils Aakre", "Aakre", [ShippedRoles.Owner], ["stores"]),
        ("thandiwe@halyard.example", "Thandiwe Maseko", "Maseko", [ShippedRoles.Owner], ["it"]),
        ("eoin@halyard.example", "Eoin Brannigan", "Brannigan", [ShippedRoles.Owner], ["safety"]),
        ("mirela@halyard.example", "Mirela Popa", "Popa", [ShippedRoles.Owner], ["training"]),
        ("ines@halyard.example", "Ines Varga", "Varga", [ShippedRoles.Newcomer], []),
    ];

    public static FidUser[] Make(IReadOnlyDictionary<string, Employment> named, Instant at) =>
        [
            .. Accounts.Select(a =>
            {
                var user = new FidUser
                {
                    DisplayName = a.Name,
                    Teams = a.Teams,
                    PersonId = named.GetValueOrDefault(a.Family)?.PersonId,
                    SecurityStamp = Guid.NewGuid().ToString("N"),
                    LockoutEnabled = true,
                    MadeAt = at,
                };
                user.SignsInWith(a.Email);
                user.PasswordHash = new PasswordHasher<FidUser>().HashPassword(user, Password);
                return user;
            }),
        ];

    public static void Add(FidDb db, FidUser[] users)
    {
        db.Users.AddRange(users);
        foreach (var (user, account) in users.Zip(Accounts))
            db.RoleGrants.AddRange(
                account.Roles.Select(r => new Data.Rights.RoleGrant
                {
                    AccountId = user.Id,
                    Role = r,
                    At = user.MadeAt,
                    ByName = "Fid",
                })
            );
    }

    /// <summary>Nils is away next week, and Thandiwe stands in.</summary>
    public static AccountAbsence NilsAway(FidUser[] users, LocalDate today, Author author)
    {
        var (nils, thandiwe) = (users.Single(u => u.DisplayName == "Nils Aakre"), users.Single(u => u.DisplayName == "Thandiwe Maseko"));
        var monday = today.Next(IsoDayOfWeek.Monday);
        return new AccountAbsence
        {
            AccountId = nils.Id,
            From = monday,
            To = monday.PlusDays(4),
            StandInId = thandiwe.Id,
            At = author.At,
            ByName = nils.DisplayName,
        };
    }

    public static void Print()
    {
        Console.WriteLine($"Accounts of the demonstration, all with the password {Password}:");
        foreach (var account in Accounts)
            Console.WriteLine(
                $"  {account.Email, -28} {string.Join(", ", account.Roles)}{(account.Teams.Length > 0 ? $" ({string.Join(", ", account.Teams)})" : "")}"
            );
    }
}
