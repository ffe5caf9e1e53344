using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.Intake;
using Fid.Data.People;
using Fid.Data.Templates;
using Fid.Server.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Intake;

/// <summary>The tray of candidates from recruiting, and what other systems are to be told.</summary>
internal static class IntakeEndpoints
{
    public static void MapIntake(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/intake", Show).WhoMay(Access.Coordinates);
        app.MapGet("/api/intake/waiting", Waiting).WhoMay(Access.Coordinates);
        app.MapPut("/api/intake/feed", SetFeed).WhoMay(Access.Administers).ProducesProblem(400);
        app.MapPost("/api/intake/pull", Pull).WhoMay(Access.Coordinates).ProducesProblem(409);
        app.MapPost("/api/intake/{id:guid}/decline", Decline).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        app.MapPost("/api/intake/{id:guid}/proposals", Settle).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404);
        app.MapPut("/api/notices/{id:guid}/told", Told).WhoMay(Access.Coordinates).ProducesProblem(404);
    }

    private static async Task<Ok<IntakeResponse>> Show(ClaimsPrincipal user, FidDb db, PeopleIndex people, FirmClock clock, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(user, db, cancellation);
        var candidates = await db.IntakeCandidates.AsNoTracking().OrderByDescending(c => c.ChangedAt).Take(500).ToListAsync(cancellation);
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        var sites = await SiteNames.LoadAsync(db, cancellation);
        var hires = candidates.Select(c => c.HireId).OfType<Guid>().ToArray();
        var starts = await StartsAsync(db, candidates, cancellation);
        var runs = await db.FeedRuns.AsNoTracking().OrderByDescending(r => r.At).Take(10).ToListAsync(cancellation);
        var notices = await db.Notices.AsNoTracking().OrderByDescending(n => n.At).Take(50).ToListAsync(cancellation);
        var names = await PeopleNames.OfHiresAsync(db, [.. hires, .. notices.Select(n => n.HireId)], reader.SeesNames, cancellation);
        var maybe = new KnownPeople(db, people, await clock.TodayAsync(db, cancellation), reader, await ListNames.LoadAsync(db, cancellation, reader.SeesNames));
        var waiting = candidates.Where(c => c.State == IntakeState.Waiting).ToList();
        var found = await maybe.FindManyAsync([.. waiting.Select(c => KnownRequest.Of(c.Now))], 1, cancellation);
        var known = waiting.Zip(found).Where(k => k.Second.Count > 0).ToDictionary(k => k.First.Id, k => k.Second[0]);
        return TypedResults.Ok(new IntakeResponse(
            await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation),
            [.. candidates.Select(c => new CandidateResponse(
                c.Id, c.State, Seen(c.Now), TemplateOf(c.Now.Role), sites.Find(c.Now.Site), c.HireId, c.HireId is { } hire ? names.GetValueOrDefault(hire) : null, c.ArrivedAt, c.ChangedAt, c.Why, known.GetValueOrDefault(c.Id),
                [.. Proposals(c, starts).Where(p => p.Key == FeedCandidate.RoleField || reader.Sees(p.Key)).Select(p => new ProposalResponse(p.Key, p.Value.Before, p.Value.Now, IsTakenOver(p.Key)))]))],
            [.. runs.Select(r => new FeedRunResponse(r.At, r.Tries, r.Candidates, r.Arrived, r.Changed, r.Trouble, r.Succeeded))],
            [.. notices.Select(n => new NoticeResponse(n.Id, n.System, n.Kind, n.HireId, names.GetValueOrDefault(n.HireId), n.Number, n.At, n.ToldAt, n.ToldBy, n.Tries, n.Trouble, n.System != Notice.Recruiting))]));

        string? TemplateOf(string? role) => role is null ? null : templates.Opening.FirstOrDefault(t => t.IsMeantBy(role))?.Code;

        // What a reader may not see of a record they do not see of a candidate either.
        FeedCandidate Seen(FeedCandidate said) => said with
        {
            GivenName = reader.Sees("given_name") ? said.GivenName : null,
            FamilyName = reader.Sees("family_name") ? said.FamilyName : null,
            BirthDate = reader.Sees("birth_date") ? said.BirthDate : null,
            Email = reader.Sees("email") ? said.Email : null,
            Phone = reader.Sees("phone") ? said.Phone : null,
            Site = reader.Sees("site") ? said.Site : null,
            Start = reader.Sees("start_date") ? said.Start : null,
        };
    }

    /// <summary>How many candidates wait, and of how many the feed says something otherwise since their hire was opened.</summary>
    private static async Task<Ok<IntakeWaiting>> Waiting(FidDb db, CancellationToken cancellation)
    {
        var waiting = await db.IntakeCandidates.CountAsync(c => c.State == IntakeState.Waiting, cancellation);
        var changed = await db.IntakeCandidates.AsNoTracking().Where(c => c.State == IntakeState.Taken && c.Settled != c.Now).ToListAsync(cancellation);
        var starts = await StartsAsync(db, changed, cancellation);
        return TypedResults.Ok(new IntakeWaiting(waiting, changed.Count(c => Proposals(c, starts).Any())));
    }

    // A start that was moved to where recruiting has it needs no more settling.
    private static IEnumerable<KeyValuePair<string, (string? Before, string? Now)>> Proposals(IntakeCandidate candidate, Dictionary<Guid, LocalDate> starts) =>
        Data.Intake.Intake.Proposals(candidate).Where(p => p.Key != StartCorrection.Field || candidate.HireId is not { } hire || starts.GetValueOrDefault(hire) != candidate.Now.Start);

    private static async Task<Dictionary<Guid, LocalDate>> StartsAsync(FidDb db, List<IntakeCandidate> candidates, CancellationToken cancellation)
    {
        var hires = candidates.Select(c => c.HireId).OfType<Guid>().ToArray();
        return await db.Hires.Where(h => hires.Contains(h.Id)).ToDictionaryAsync(h => h.Id, h => h.Start, cancellation);
    }

    // A start is moved with its checklist, and another role is for somebody to think about.
    private static bool IsTakenOver(string field) => field is not (StartCorrection.Field or FeedCandidate.RoleField);

    private static async Task<Results<NoContent, ProblemHttpResult>> SetFeed(FeedRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var address = request.Address?.Trim();
        if (!string.IsNullOrEmpty(address) && (address.Length > 500 || !Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https")))
            return Problems.Invalid(new Problem("/address", "bad-value", "Enter an address that begins with https:// or http://."));
        var firm = await db.Firms.SingleAsync(cancellation);
        firm.FeedAddress = string.IsNullOrEmpty(address) ? null : address;
        db.Changes.Add(user.Author(clock, "exchange").Change("feed.address", firm.Id, firm.FeedAddress));
        await db.SaveChangesAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<FeedRunResponse>, ProblemHttpResult>> Pull(FeedPull pull, CancellationToken cancellation) =>
        await pull.PullAsync(cancellation) is { } run
            ? TypedResults.Ok(new FeedRunResponse(run.At, run.Tries, run.Candidates, run.Arrived, run.Changed, run.Trouble, run.Succeeded))
            : Problems.Conflict("no-feed", "Say first where the feed is.");

    private static async Task<Results<NoContent, ProblemHttpResult>> Decline(
        Guid id, DeclineRequest request, ClaimsPrincipal user, FidDb db, Notices notices, FirmClock clock, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } bad) return Problems.Invalid(bad);
        if (await db.IntakeCandidates.SingleOrDefaultAsync(c => c.Id == id, cancellation) is not { } candidate) return Problems.NotFound();
        if (candidate.State != IntakeState.Waiting) return Problems.Conflict("not-waiting", "This candidate does not wait any more.");
        var author = user.Author(clock, "exchange");
        (candidate.State, candidate.Why) = (IntakeState.Declined, Reason.Clean(request.Why));
        notices.TellRecruiting(candidate, NoticeKind.Declined, Guid.Empty, "", candidate.Now.Start ?? await clock.TodayAsync(db, cancellation), author.At);
        db.Changes.Add(author.Change("candidate.declined", candidate.Id, candidate.SourceId, candidate.Why));
        await db.SaveChangesAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>Takes over or sets aside what the feed says otherwise since the hire was opened.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Settle(
        Guid id, SettleRequest request, ClaimsPrincipal user, FidDb db, SensitiveValues sensitive, RecordWriter records, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await db.IntakeCandidates.SingleOrDefaultAsync(c => c.Id == id, cancellation) is not { HireId: { } hire } candidate) return Problems.NotFound();
        var proposals = Data.Intake.Intake.Proposals(candidate);
        var (take, leave) = (request.Take.Where(proposals.ContainsKey).ToHashSet(), request.Leave.Where(proposals.ContainsKey).ToHashSet());
        if (take.FirstOrDefault(f => !IsTakenOver(f)) is { } by)
            return Problems.Invalid(new Problem($"/take/{by}", "by-hand", "Do this in the checklist, or leave it as it is."));
        var employmentId = await db.Hires.Where(h => h.Id == hire).Select(h => h.EmploymentId).SingleAsync(cancellation);
        await records.LockAsync(employmentId, cancellation);
        var employment = await db.Employments.SingleAsync(e => e.Id == employmentId, cancellation);
        var record = await db.RecordsNow.SingleAsync(r => r.EmploymentId == employmentId, cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var sites = await SiteNames.LoadAsync(db, cancellation);
        var entered = await EnteredValues.CheckAsync(
            db, sensitive, fields, take.ToDictionary(f => f, f => JsonSerializer.SerializeToElement(f == "site" ? sites.Find(proposals[f].Now) ?? proposals[f].Now : proposals[f].Now)), ShownRecord.RolesOf(user), employment, cancellation);
        if (entered.Problems.Count > 0) return Problems.Invalid([.. entered.Problems.Select(p => p.Under("/take"))]);
        var today = await clock.TodayAsync(db, cancellation);
        var change = user.Author(clock, "exchange").Change("record.fromRecruiting", employmentId, string.Join(' ', take.Order(StringComparer.Ordinal)));
        db.Changes.Add(change);
        // Nothing of a stint is true before its first day: until then, what it begins with is put right.
        LocalDate? From(string field) => fields.Set.Find(field)!.Of == FieldOwner.Employment && employment.Start > today ? null : today;
        await records.EditAsync(employment, record, [.. entered.Values.Select(v => new FieldEdit(v.Key, v.Value, HireOrigin.FromRecruiting, From(v.Key)))], change, today, cancellation);
        candidate.Settled = Settled(candidate.Settled!, candidate.Now, take.Union(leave).ToHashSet());
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static FeedCandidate Settled(FeedCandidate before, FeedCandidate now, HashSet<string> fields) => before with
    {
        GivenName = fields.Contains("given_name") ? now.GivenName : before.GivenName,
        FamilyName = fields.Contains("family_name") ? now.FamilyName : before.FamilyName,
        BirthDate = fields.Contains("birth_date") ? now.BirthDate : before.BirthDate,
        Email = fields.Contains("email") ? now.Email : before.Email,
        Phone = fields.Contains("phone") ? now.Phone : before.Phone,
        Site = fields.Contains("site") ? now.Site : before.Site,
        Start = fields.Contains(StartCorrection.Field) ? now.Start : before.Start,
        Role = fields.Contains(FeedCandidate.RoleField) ? now.Role : before.Role,
    };

    /// <summary>Says that somebody told another system by hand.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Told(Guid id, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        if (await db.Notices.SingleOrDefaultAsync(n => n.Id == id, cancellation) is not { } notice) return Problems.NotFound();
        var author = user.Author(clock, "exchange");
        if (notice.ToldAt is null)
        {
            (notice.ToldAt, notice.ToldBy) = (author.At, author.Name);
            db.Changes.Add(author.Change("notice.told", notice.HireId, notice.System));
            await db.SaveChangesAsync(cancellation);
        }
        return TypedResults.NoContent();
    }
}

/// <param name="Feed">Where the feed is; null for none.</param>
public sealed record IntakeResponse(string? Feed, CandidateResponse[] Candidates, FeedRunResponse[] Runs, NoticeResponse[] Notices);

/// <summary>A candidate.</summary>
/// <param name="Template">The template that fits the role; null where none does.</param>
/// <param name="SiteCode">The site that fits; null where none does.</param>
/// <param name="HireName">Whom the hire is called.</param>
/// <param name="Known">The likeliest of those the firm knows who may be the candidate, while the candidate waits; null for nobody.</param>
public sealed record CandidateResponse(
    Guid Id, IntakeState State, FeedCandidate Candidate, string? Template, string? SiteCode, Guid? HireId, string? HireName, Instant ArrivedAt, Instant ChangedAt, string? Why, KnownPerson? Known,
    ProposalResponse[] Proposals);

/// <summary>What the feed says otherwise since the hire was opened.</summary>
/// <param name="Field">The key of a field, or "role".</param>
/// <param name="TakesOver">Whether it can be taken over as it is; a start is moved with its checklist instead.</param>
public sealed record ProposalResponse(string Field, string? Before, string? Now, bool TakesOver);

/// <summary>What of recruiting waits for somebody.</summary>
/// <param name="Waiting">Candidates for whom no hire was opened yet.</param>
/// <param name="Changed">Hires of whose candidates the feed says something otherwise since.</param>
public sealed record IntakeWaiting(int Waiting, int Changed);

public sealed record FeedRunResponse(Instant At, int Tries, int Candidates, int Arrived, int Changed, string[] Trouble, bool Succeeded);

/// <param name="ByHand">Whether there is no connection, so that somebody has to tell it.</param>
public sealed record NoticeResponse(
    Guid Id, string System, NoticeKind Kind, Guid HireId, string? Name, string Number, Instant At, Instant? ToldAt, string? ToldBy, int Tries, string? Trouble, bool ByHand);

public sealed record FeedRequest(string? Address);

public sealed record DeclineRequest(string? Why);

/// <param name="Take">Fields to take over.</param>
/// <param name="Leave">Fields to leave as they are.</param>
public sealed record SettleRequest(string[] Take, string[] Leave);
