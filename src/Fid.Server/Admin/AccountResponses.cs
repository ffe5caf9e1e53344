using Fid.Acts.Accounts;
using Fid.Core.Rights;
using Fid.Data.Firms;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>Whether somebody can sign in with an account.</summary>
public enum AccountState
{
    /// <summary>They can.</summary>
    Active,

    /// <summary>They were invited and have set no password yet.</summary>
    Invited,

    /// <summary>Nobody was invited to it so far.</summary>
    Asleep,

    /// <summary>Nobody can any more.</summary>
    Disabled,
}

/// <summary>A page of accounts.</summary>
/// <param name="Next">What to go on after; null at the end.</param>
/// <param name="Counts">How many the search finds in each state.</param>
/// <param name="EmptyTeams">Codes of the teams that nobody is in.</param>
public sealed record AccountsPage(AccountResponse[] Accounts, Guid? Next, AccountCounts Counts, string[] EmptyTeams);

/// <summary>How many accounts there are in each state.</summary>
public sealed record AccountCounts(int Active, int Invited, int Asleep, int Disabled);

/// <summary>An account.</summary>
/// <param name="Email">What its user signs in with; null while it sleeps.</param>
/// <param name="Employment">A stint of the person its user is; null where the firm has no record of them.</param>
/// <param name="Person">The name of that person.</param>
/// <param name="LinkEndsAt">Until when its link can be used; null where it has none.</param>
public sealed record AccountResponse(
    Guid Id,
    string Name,
    string? Email,
    AccountState State,
    string[] Roles,
    string[] Teams,
    string Language,
    Guid? Employment,
    string? Person,
    Instant? LastSignInAt,
    Instant? LinkEndsAt,
    Instant? DisabledAt,
    AccountEnd? DisabledWhy
)
{
    internal uint RowVersion { get; init; }
}

/// <summary>An account with its sessions that go on.</summary>
/// <param name="Grants">The roles it has for a time, from the earliest; those that are over are left out.</param>
/// <param name="Ruled">The roles it has by rule today.</param>
/// <param name="SecondFactorSince">Since when its user proves by a second factor who they are; null for not.</param>
/// <param name="Version">What to send as If-Match when it is saved.</param>
public sealed record AccountDetail(
    AccountResponse Account,
    AccountSession[] Sessions,
    AccountGrant[] Grants,
    RoleByRule[] Ruled,
    Instant? SecondFactorSince,
    string Version
);

/// <summary>Where somebody is signed in.</summary>
public sealed record AccountSession(Instant StartedAt, Instant EndsAt, string Address, string Browser);

/// <summary>Whether a person has an account.</summary>
/// <param name="Account">Null where they have none.</param>
/// <param name="Name">How they are called.</param>
/// <param name="Email">The address of their record.</param>
public sealed record PersonsAccount(AccountResponse? Account, string Name, string? Email);

/// <summary>What an administrator says of an account.</summary>
/// <param name="Employment">A stint of the person its user is; null where the firm has no record of them.</param>
/// <param name="Language">The language of the interface: "en" or "de".</param>
public sealed record InvitationRequest(string Name, string Email, string[] Roles, string[] Teams, Guid? Employment, string Language)
{
    internal AccountFacts Facts() => new(Name, Email, Roles, Teams, Employment, Language);
}

/// <summary>A link to give to its user. It is shown this once.</summary>
/// <param name="Link">The path of the link, under this server's address.</param>
/// <param name="EndsAt">From when on it opens nothing.</param>
public sealed record LinkResponse(Guid Account, string Link, Instant EndsAt);
