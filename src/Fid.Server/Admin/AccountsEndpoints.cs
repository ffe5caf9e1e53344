using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.People;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>The people who sign in: who they are, what they may, and the links by which they set their passwords.</summary>
internal static class AccountsEndpoints
{
    private const int PageSize = 100,
        LongestSearch = 200;

    // All but those that nobody was invited to: of newcomers there may be hundreds.
    private const string Awake = "awake";

    private static readonly Dictionary<string, AccountState> States = new(StringComparer.Ordinal)
    {
        ["active"] = AccountState.Active,
        ["invited"] = AccountState.Invited,
        ["asleep"] = AccountState.Asleep,
        ["disabled"] = AccountState.Disabled,
    };

    public static void MapAccounts(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/accounts", List).WhoMay(Access.Administers).ProducesProblem(400);
        app.MapPost("/api/accounts", Invite).WhoMay(Access.Administers).ProducesProblem(400).ProducesProblem(409);
        app.MapGet("/api/accounts/{id:guid}", Show).WhoMay(Access.Administers).ProducesProblem(404);
        app.MapGet("/api/accounts/of/{id:guid}", OfPerson).WhoMay(Access.Administers).ProducesProblem(404);
        app.MapPut("/api/accounts/{id:guid}", Save)
            .WhoMay(Access.Administers)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(412)
            .ProducesProblem(428);
        app.MapPost("/api/accounts/{id:guid}/link", MakeLink).WhoMay(Access.Administers).ProducesProblem(404).ProducesProblem(409);
        app.MapPut("/api/accounts/{id:guid}/disabled", Disable).WhoMay(Access.Administers).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/disabled", Enable).WhoMay(Access.Administers).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/sessions", EndSessions).WhoMay(Access.Administers).ProducesProblem(404);
    }

    /// <summary>Accounts by name.</summary>
    /// <param name="q">Only those of whose name or address a word begins like this.</param>
    /// <param name="only">Only those in this state; "awake" for all but those asleep.</param>
    /// <param name="after">Go on after this account.</param>
    private static async Task<Results<Ok<AccountsPage>, ProblemHttpResult>> List(
        string? q,
        string? only,
        Guid? after,
        Actor actor,
        FidDb db,
        FirmClock clock,
        CancellationToken cancellation
    )
    {
        if (q?.Length > LongestSearch)
            return Problems.Invalid(new Core.Problem("/q", "too-long", $"Enter at most {LongestSearch} characters."));
        if (only is not null and not Awake && !States.ContainsKey(only))
            return Problems.Invalid(new Core.Problem("/only", "bad-value", $"Say one of {Awake}, {string.Join(", ", States.Keys)}."));
        var now = clock.Now;
        // As they are stored: folded words would need a column of their own, for a list that one person looks through now and then.
        var words = TextRules.TryClean(q ?? "", out var clean) ? clean.Split(' ', StringSplitOptions.RemoveEmptyEntries) : [];
        var found = db.Users.AsNoTracking().AsQueryable();
        foreach (var word in words)
        {
            var pattern = $"%{LikePattern.Escape(word)}%";
            found = found.Where(u => EF.Functions.ILike(u.DisplayName, pattern) || (u.Email != null && EF.Functions.ILike(u.Email, pattern)));
        }
        var counts = (
            await found
                .GroupBy(u =>
                    u.DisabledAt != null ? AccountState.Disabled
                    : u.PasswordHash != null ? AccountState.Active
                    : u.Email != null ? AccountState.Invited
                    : AccountState.Asleep
                )
                .Select(g => new { g.Key, Count = g.Count() })
                .ToListAsync(cancellation)
        ).ToDictionary(c => c.Key, c => c.Count);
        var page = (only is null or Awake ? (AccountState?)null : States[only]) switch
        {
            null when only == Awake => found.Where(u => u.Email != null || u.DisabledAt != null),
            AccountState.Disabled => found.Where(u => u.DisabledAt != null),
            AccountState.Active => found.Where(u => u.DisabledAt == null && u.PasswordHash != null),
            AccountState.Invited => found.Where(u => u.DisabledAt == null && u.PasswordHash == null && u.Email != null),
            AccountState.Asleep => found.Where(u => u.DisabledAt == null && u.PasswordHash == null && u.Email == null),
            _ => found,
        };
        if (after is { } id && await db.Users.Where(u => u.Id == id).Select(u => u.DisplayName).SingleOrDefaultAsync(cancellation) is { } name)
            page = page.Where(u => EF.Functions.GreaterThan(ValueTuple.Create(u.DisplayName, u.Id), ValueTuple.Create(name, id)));
        var accounts = await DescribeAsync(
            page.OrderBy(u => u.DisplayName).ThenBy(u => u.Id).Take(PageSize + 1),
            await Reader.OfAsync(actor, db, cancellation),
            db,
            now,
            cancellation
        );
        return TypedResults.Ok(
            new AccountsPage(
                [.. accounts.Take(PageSize)],
                accounts.Count > PageSize ? accounts[PageSize - 1].Id : null,
                new AccountCounts(Of(AccountState.Active), Of(AccountState.Invited), Of(AccountState.Asleep), Of(AccountState.Disabled)),
                [.. Roles.All],
                [.. (await TeamMembers.NobodyInAsync(db, cancellation)).Order(StringComparer.Ordinal)]
            )
        );

        int Of(AccountState state) => counts.GetValueOrDefault(state);
    }

    private static async Task<Results<Ok<AccountDetail>, ProblemHttpResult>> Show(
        Guid id,
        Actor actor,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var now = clock.Now;
        if (
            await DescribeAsync(db.Users.AsNoTracking().Where(u => u.Id == id), await Reader.OfAsync(actor, db, cancellation), db, now, cancellation)
            is not [var account]
        )
            return Problems.NotFound();
        var sessions = await db
            .UserSessions.AsNoTracking()
            .Where(s => s.UserId == id && s.EndedAt == null && s.EndsAt > now)
            .OrderByDescending(s => s.StartedAt)
            .Select(s => new AccountSession(s.StartedAt, s.EndsAt, s.Address, s.Browser))
            .ToArrayAsync(cancellation);
        Versions.Show(http.Response, account.RowVersion);
        return TypedResults.Ok(new AccountDetail(account, sessions, Versions.Tag(account.RowVersion)));
    }

    /// <summary>The account of a person, and how they would be invited.</summary>
    private static async Task<Results<Ok<PersonsAccount>, ProblemHttpResult>> OfPerson(
        Guid id,
        Actor actor,
        FidDb db,
        FirmClock clock,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (await db.CurrentRecords.AsNoTracking().SingleOrDefaultAsync(r => r.EmploymentId == id, cancellation) is not { } record)
            return Problems.NotFound();
        var accounts = await DescribeAsync(
            db.Users.AsNoTracking().Where(u => u.PersonId == record.PersonId).OrderBy(u => u.DisabledAt != null).ThenBy(u => u.Id),
            reader,
            db,
            clock.Now,
            cancellation
        );
        return TypedResults.Ok(
            new PersonsAccount(accounts.Count > 0 ? accounts[0] : null, reader.SeesNames ? record.FullName : "", reader.Sees("email") ? record.Email : null)
        );
    }

    private static async Task<Results<Ok<LinkResponse>, ProblemHttpResult>> Invite(
        InvitationRequest request,
        Actor actor,
        InviteUser invite,
        CancellationToken cancellation
    ) => Given(await invite.DoAsync(new InviteUserRequest(request.Facts()), actor, cancellation));

    private static async Task<Results<Ok<LinkResponse>, ProblemHttpResult>> MakeLink(
        Guid id,
        Actor actor,
        MakeAccountLink make,
        CancellationToken cancellation
    ) => Given(await make.DoAsync(new MakeAccountLinkRequest(id), actor, cancellation));

    private static async Task<Results<NoContent, ProblemHttpResult>> Save(
        Guid id,
        InvitationRequest request,
        Actor actor,
        SaveAccount save,
        HttpRequest http,
        CancellationToken cancellation
    ) => (await save.DoAsync(new SaveAccountRequest(id, request.Facts(), Versions.Seen(http)), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Disable(Guid id, Actor actor, DisableAccount disable, CancellationToken cancellation) =>
        (await disable.DoAsync(new DisableAccountRequest(id), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Enable(Guid id, Actor actor, EnableAccount enable, CancellationToken cancellation) =>
        (await enable.DoAsync(new EnableAccountRequest(id), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSessions(
        Guid id,
        Actor actor,
        EndAccountSessions end,
        CancellationToken cancellation
    ) => (await end.DoAsync(new EndAccountSessionsRequest(id), actor, cancellation)).Answer();

    private static Results<Ok<LinkResponse>, ProblemHttpResult> Given(ActResult<GivenLink> result) =>
        result.IsDone(out var link, out var refusal)
            ? TypedResults.Ok(new LinkResponse(link.Account, $"/invitation#{link.Token}", link.EndsAt))
            : Problems.Of(refusal);

    private static async Task<List<AccountResponse>> DescribeAsync(
        IQueryable<FidUser> accounts,
        Reader reader,
        FidDb db,
        Instant now,
        CancellationToken cancellation
    )
    {
        var rows = await accounts
            .Select(u => new
            {
                u.Id,
                u.DisplayName,
                u.Email,
                u.Language,
                u.Teams,
                u.DisabledAt,
                u.DisabledWhy,
                u.LastSignInAt,
                u.Version,
                HasPassword = u.PasswordHash != null,
                Roles = db.UserRoles.Where(r => r.UserId == u.Id).Join(db.Roles, r => r.RoleId, r => r.Id, (_, role) => role.Name!).OrderBy(n => n).ToList(),
                LinkEndsAt = db.AccountLinks.Where(l => l.UserId == u.Id).Select(l => (Instant?)l.EndsAt).SingleOrDefault(),
                Stint = db
                    .Employments.Where(e => e.PersonId == u.PersonId)
                    .OrderByDescending(e => e.Start)
                    .Join(
                        db.CurrentRecords,
                        e => e.Id,
                        r => r.EmploymentId,
                        (e, r) =>
                            new
                            {
                                r.EmploymentId,
                                Name = r.GivenName + " " + r.FamilyName,
                                e.Number,
                            }
                    )
                    .FirstOrDefault(),
            })
            .ToListAsync(cancellation);
        return rows.ConvertAll(u => new AccountResponse(
            // An account that sleeps has its name from the record.
            u.Id,
            u.Email is null && !reader.SeesNames ? u.Stint?.Number ?? "" : u.DisplayName,
            u.Email,
            u.DisabledAt is not null ? AccountState.Disabled
                : u.HasPassword ? AccountState.Active
                : u.Email is not null ? AccountState.Invited
                : AccountState.Asleep,
            [.. u.Roles],
            u.Teams,
            u.Language,
            u.Stint?.EmploymentId,
            reader.SeesNames ? u.Stint?.Name.Trim() : null,
            u.LastSignInAt,
            u.LinkEndsAt > now ? u.LinkEndsAt : null,
            u.DisabledAt,
            u.DisabledWhy
        )
        {
            RowVersion = u.Version,
        });
    }
}

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
/// <param name="Roles">The roles there are.</param>
/// <param name="EmptyTeams">Codes of the teams that nobody is in.</param>
public sealed record AccountsPage(AccountResponse[] Accounts, Guid? Next, AccountCounts Counts, string[] Roles, string[] EmptyTeams);

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
/// <param name="Version">What to send as If-Match when it is saved.</param>
public sealed record AccountDetail(AccountResponse Account, AccountSession[] Sessions, string Version);

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
