using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Acts.SecondFactors;
using Fid.Core.Rights;
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
        app.MapGet("/api/accounts", List).WhoMay(Actions.See, Things.Account).ProducesProblem(400);
        app.MapPost("/api/accounts", Invite).WhoMay(Actions.Edit, Things.Account).AsksAgain().ProducesProblem(400).ProducesProblem(409);
        app.MapGet("/api/accounts/{id:guid}", Show).WhoMay(Actions.See, Things.Account).ProducesProblem(404);
        app.MapGet("/api/accounts/of/{id:guid}", OfPerson).WhoMay(Actions.See, Things.Account).ProducesProblem(404);
        app.MapPut("/api/accounts/{id:guid}", Save)
            .WhoMay(Actions.Edit, Things.Account)
            .AsksAgain()
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(412)
            .ProducesProblem(428);
        app.MapPost("/api/accounts/{id:guid}/link", MakeLink).WhoMay(Actions.Edit, Things.Account).AsksAgain().ProducesProblem(404).ProducesProblem(409);
        app.MapPut("/api/accounts/{id:guid}/disabled", Disable).WhoMay(Actions.Edit, Things.Account).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/disabled", Enable).WhoMay(Actions.Edit, Things.Account).ProducesProblem(404).ProducesProblem(409);
        app.MapPost("/api/accounts/{id:guid}/grants", Give)
            .WhoMay(Actions.Grant, Things.Role)
            .AsksAgain()
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/grants/{grant:guid}", Take)
            .WhoMay(Actions.Grant, Things.Role)
            .AsksAgain()
            .ProducesProblem(404)
            .ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/second-factor", ClearFactor)
            .WhoMay(Actions.Edit, Things.Account)
            .AsksAgain()
            .ProducesProblem(404)
            .ProducesProblem(409);
        app.MapDelete("/api/accounts/{id:guid}/sessions", EndSessions).WhoMay(Actions.Edit, Things.Account).ProducesProblem(404);
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
        var counts = await Stated(found)
            .GroupBy(s => s.State)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(c => c.Key, c => c.Count, cancellation);
        var page =
            only == Awake ? Stated(found).Where(s => s.State != AccountState.Asleep).Select(s => s.User)
            : only is null ? found
            : Stated(found).Where(s => s.State == States[only]).Select(s => s.User);
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
                await TeamMembers.NobodyInAsync(db, cancellation)
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
        var today = actor.Today;
        var grants = await db
            .RoleGrants.AsNoTracking()
            .Where(g => g.AccountId == id && (g.From != null || g.To != null) && (g.To == null || g.To >= today))
            .OrderBy(g => g.From)
            .ThenBy(g => g.Role)
            .Select(g => new AccountGrant(g.Id, g.Role, g.From, g.To, g.At, g.ByName))
            .ToArrayAsync(cancellation);
        var set = await LiveRights.LiveAsync(db, cancellation);
        RoleByRule[] ruled = [.. (await AccountRoles.On(db, today).SingleAsync(a => a.Account == id, cancellation)).ByRule(set)];
        var factor = await db.Users.Where(u => u.Id == id).Select(u => u.SecondFactorSince).SingleAsync(cancellation);
        Versions.Show(http.Response, account.RowVersion);
        return TypedResults.Ok(new AccountDetail(account, sessions, grants, ruled, factor, Versions.Tag(account.RowVersion)));
    }

    private static async Task<Results<Ok<GrantResponse>, ProblemHttpResult>> Give(
        Guid id,
        GrantRequest request,
        Actor actor,
        GrantRole grant,
        CancellationToken cancellation
    ) =>
        (await grant.DoAsync(new GrantRoleRequest(id, request.Role, request.From, request.To, request.Why), actor, cancellation)).IsDone(
            out var given,
            out var refusal
        )
            ? TypedResults.Ok(new GrantResponse(given))
            : Problems.Of(refusal);

    private static async Task<Results<NoContent, ProblemHttpResult>> Take(Guid id, Guid grant, Actor actor, EndGrant end, CancellationToken cancellation) =>
        (await end.DoAsync(new EndGrantRequest(id, grant, null), actor, cancellation)).Answer();

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
            new PersonsAccount(
                accounts.Count > 0 ? accounts[0] : null,
                reader.MayOpen(record) && Reader.Names(reader.On(record)) ? record.FullName : "",
                reader.MayOpen(record) && reader.On(record).Sees("email") ? record.Email : null
            )
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

    /// <summary>For somebody whose device and codes are lost.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ClearFactor(
        Guid id,
        Actor actor,
        ClearSecondFactor clear,
        CancellationToken cancellation
    ) => (await clear.DoAsync(new ClearSecondFactorRequest(id), actor, cancellation)).Answer();

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

    private static IQueryable<StatedAccount> Stated(IQueryable<FidUser> accounts) =>
        accounts.Select(u => new StatedAccount
        {
            User = u,
            State =
                u.DisabledAt != null ? AccountState.Disabled
                : u.PasswordHash != null ? AccountState.Active
                : u.Email != null ? AccountState.Invited
                : AccountState.Asleep,
        });

    private static async Task<List<AccountResponse>> DescribeAsync(
        IQueryable<FidUser> accounts,
        Reader reader,
        FidDb db,
        Instant now,
        CancellationToken cancellation
    )
    {
        var rows = await Stated(accounts)
            .Select(s => new
            {
                s.User.Id,
                s.User.DisplayName,
                s.User.Email,
                s.User.Language,
                s.User.Teams,
                s.User.DisabledAt,
                s.User.DisabledWhy,
                s.User.LastSignInAt,
                s.User.Version,
                s.State,
                Roles = db.RoleGrants.Where(g => g.AccountId == s.User.Id && g.From == null && g.To == null).Select(g => g.Role).OrderBy(r => r).ToList(),
                LinkEndsAt = db.AccountLinks.Where(l => l.UserId == s.User.Id).Select(l => (Instant?)l.EndsAt).SingleOrDefault(),
                Stint = db
                    .Employments.Where(e => e.PersonId == s.User.PersonId)
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
            u.Email is null && !(reader.SeesNames && reader.OpensAll) ? u.Stint?.Number ?? "" : u.DisplayName,
            u.Email,
            u.State,
            [.. u.Roles],
            u.Teams,
            u.Language,
            u.Stint?.EmploymentId,
            reader.SeesNames && reader.OpensAll ? u.Stint?.Name.Trim() : null,
            u.LastSignInAt,
            u.LinkEndsAt > now ? u.LinkEndsAt : null,
            u.DisabledAt,
            u.DisabledWhy
        )
        {
            RowVersion = u.Version,
        });
    }

    /// <summary>An account, and whether somebody can sign in with it.</summary>
    private sealed class StatedAccount
    {
        public required FidUser User { get; init; }

        public required AccountState State { get; init; }
    }
}
