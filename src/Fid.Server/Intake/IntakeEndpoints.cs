using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.Intake;
using Fid.Acts.Lists;
using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Intake;
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
        app.MapGet("/api/intake", Show).WhoMay(Actions.Edit, Things.Candidate);
        app.MapGet("/api/intake/waiting", Waiting).WhoMay(Actions.Edit, Things.Candidate);
        app.MapPut("/api/intake/feed", SetFeed).WhoMay(Actions.Edit, Things.Connection).ProducesProblem(400);
        app.MapPost("/api/intake/pull", Pull).WhoMay(Actions.Edit, Things.Candidate).ProducesProblem(409);
        app.MapPost("/api/intake/{id:guid}/decline", Decline)
            .WhoMay(Actions.Edit, Things.Candidate)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409);
        app.MapPost("/api/intake/{id:guid}/proposals", Settle).WhoMay(Actions.Edit, Things.Candidate).ProducesProblem(400).ProducesProblem(404);
        app.MapPut("/api/outbox/{id:guid}/told", Told).WhoMay(Actions.Edit, Things.Candidate).ProducesProblem(404);
    }

    private static async Task<Ok<IntakeResponse>> Show(Actor actor, FidDb db, PeopleIndex people, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var candidates = await db.IntakeCandidates.AsNoTracking().OrderByDescending(c => c.ChangedAt).Take(500).ToListAsync(cancellation);
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        var sites = await SiteNames.LoadAsync(db, cancellation);
        var hires = candidates.Select(c => c.HireId).OfType<Guid>().ToArray();
        var starts = await StartsAsync(db, candidates, cancellation);
        var runs = await db.FeedRuns.AsNoTracking().OrderByDescending(r => r.At).Take(10).ToListAsync(cancellation);
        var notices = await db.Outbox.AsNoTracking().OrderByDescending(n => n.At).Take(50).ToListAsync(cancellation);
        var names = await PeopleNames.OfHiresAsync(
            db,
            [.. hires, .. notices.Select(n => n.HireId).OfType<Guid>()],
            reader.SeesNames && reader.OpensAll,
            cancellation
        );
        var maybe = new KnownPeople(db, people, actor.Today, reader, await ListNames.EntriesAsync(db, cancellation, reader.SeesNames));
        var waiting = candidates.Where(c => c.State == IntakeState.Waiting).ToList();
        var found = await maybe.FindManyAsync([.. waiting.Select(c => KnownRequest.Of(c.Now))], 1, cancellation);
        var known = waiting.Zip(found).Where(k => k.Second.Count > 0).ToDictionary(k => k.First.Id, k => k.Second[0]);
        return TypedResults.Ok(
            new IntakeResponse(
                await db.Firms.Select(f => f.FeedAddress).SingleAsync(cancellation),
                [
                    .. candidates.Select(c => new CandidateResponse(
                        c.Id,
                        c.State,
                        Seen(c.Now),
                        TemplateOf(c.Now.Role),
                        sites.Find(c.Now.Site),
                        c.HireId,
                        c.HireId is { } hire ? names.GetValueOrDefault(hire) : null,
                        c.ArrivedAt,
                        c.ChangedAt,
                        c.Why,
                        known.GetValueOrDefault(c.Id),
                        [
                            .. Proposals(c, starts)
                                .Where(p => p.Key == FeedCandidate.RoleField || reader.Sees(p.Key))
                                .Select(p => new ProposalResponse(p.Key, p.Value.Before, p.Value.Now, SettleProposals.IsTakenOver(p.Key))),
                        ]
                    )),
                ],
                [.. runs.Select(r => new FeedRunResponse(r.At, r.Tries, r.Candidates, r.Arrived, r.Changed, r.Trouble, r.Succeeded))],
                [
                    .. notices.Select(n => new NoticeResponse(
                        n.Id,
                        n.Channel,
                        n.Payload.Kind,
                        n.HireId,
                        n.HireId is { } about ? names.GetValueOrDefault(about) : null,
                        n.Payload.Number,
                        n.At,
                        n.SentAt,
                        n.SentBy,
                        n.Tries,
                        n.Trouble,
                        n.Channel != OutboxMessage.Recruiting
                    )),
                ]
            )
        );

        string? TemplateOf(string? role) => role is null ? null : templates.Opening.FirstOrDefault(t => t.IsMeantBy(role))?.Code;

        // What a reader may not see of a record they do not see of a candidate either.
        FeedCandidate Seen(FeedCandidate said) =>
            said with
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
        Fid
            .Acts.Intake.Intake.Proposals(candidate)
            .Where(p => p.Key != StartCorrection.Field || candidate.HireId is not { } hire || starts.GetValueOrDefault(hire) != candidate.Now.Start);

    private static async Task<Dictionary<Guid, LocalDate>> StartsAsync(FidDb db, List<IntakeCandidate> candidates, CancellationToken cancellation)
    {
        var hires = candidates.Select(c => c.HireId).OfType<Guid>().ToArray();
        return await db.Hires.Where(h => hires.Contains(h.Id)).ToDictionaryAsync(h => h.Id, h => h.Start, cancellation);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetFeed(
        SetFeedRequest request,
        Actor actor,
        SetFeed set,
        CancellationToken cancellation
    ) => (await set.DoAsync(request, actor, cancellation)).Answer();

    private static async Task<Results<Ok<FeedRunResponse>, ProblemHttpResult>> Pull(Actor actor, FeedPull pull, CancellationToken cancellation) =>
        await pull.PullAsync(actor, cancellation) is { } run
            ? TypedResults.Ok(new FeedRunResponse(run.At, run.Tries, run.Candidates, run.Arrived, run.Changed, run.Trouble, run.Succeeded))
            : Problems.Conflict("no-feed", "Say first where the feed is.");

    private static async Task<Results<NoContent, ProblemHttpResult>> Decline(
        Guid id,
        DeclineRequest request,
        Actor actor,
        DeclineCandidate decline,
        CancellationToken cancellation
    ) => (await decline.DoAsync(new DeclineCandidateRequest(id, request.Why), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Settle(
        Guid id,
        SettleRequest request,
        Actor actor,
        SettleProposals settle,
        CancellationToken cancellation
    ) => (await settle.DoAsync(new SettleProposalsRequest(id, request.Take, request.Leave), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Told(Guid id, Actor actor, MarkMessageTold told, CancellationToken cancellation) =>
        (await told.DoAsync(new MarkMessageToldRequest(id), actor, cancellation)).Answer();
}

/// <param name="Feed">Where the feed is; null for none.</param>
public sealed record IntakeResponse(string? Feed, CandidateResponse[] Candidates, FeedRunResponse[] Runs, NoticeResponse[] Notices);

/// <summary>A candidate.</summary>
/// <param name="Template">The template that fits the role; null where none does.</param>
/// <param name="SiteCode">The site that fits; null where none does.</param>
/// <param name="HireName">Whom the hire is called.</param>
/// <param name="Known">The likeliest of those the firm knows who may be the candidate, while the candidate waits; null for nobody.</param>
public sealed record CandidateResponse(
    Guid Id,
    IntakeState State,
    FeedCandidate Candidate,
    string? Template,
    string? SiteCode,
    Guid? HireId,
    string? HireName,
    Instant ArrivedAt,
    Instant ChangedAt,
    string? Why,
    KnownPerson? Known,
    ProposalResponse[] Proposals
);

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
    Guid Id,
    string System,
    NoticeKind Kind,
    Guid? HireId,
    string? Name,
    string Number,
    Instant At,
    Instant? ToldAt,
    string? ToldBy,
    int Tries,
    string? Trouble,
    bool ByHand
);

public sealed record DeclineRequest(string? Why);

/// <param name="Take">Fields to take over.</param>
/// <param name="Leave">Fields to leave as they are.</param>
public sealed record SettleRequest(string[] Take, string[] Leave);
