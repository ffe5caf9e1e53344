using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.FieldDrafts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Fields;

/// <summary>The draft of the next configuration: saved, looked through, tried, published.</summary>
internal static class DraftEndpoints
{
    public static void MapDrafts(this IEndpointRouteBuilder app)
    {
        var draft = app.MapGroup("/api/fields/draft");
        draft.MapPut("", Save).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
        draft.MapDelete("", Discard).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(409).ProducesProblem(412);
        draft.MapPost("/review", Review).WhoMay(Actions.Edit, Things.Fields).RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
        draft.MapPost("/try", Try).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(400);
        draft.MapPost("/approvals", ApprovalTrial.Try).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(400).ProducesProblem(404);
        draft
            .MapPost("/publish", Publish)
            .WhoMay(Actions.Edit, Things.Fields)
            .AsksAgain()
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(412);
    }

    private static async Task<Results<Ok<DraftResponse>, ProblemHttpResult>> Save(
        DraftRequest request,
        Actor actor,
        FidDb db,
        SaveFieldDraft save,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(new SaveFieldDraftRequest(request.Configuration, Platform.Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var draft, out var refusal) ? TypedResults.Ok(DraftResponse.Of(draft)) : await RefusedAsync(refusal, db, cancellation);
    }

    /// <summary>Throws the draft away: the one that was seen, and no later one.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Discard(
        Actor actor,
        FidDb db,
        DiscardFieldDraft discard,
        HttpRequest http,
        CancellationToken cancellation
    ) =>
        (await discard.DoAsync(new DiscardFieldDraftRequest(Platform.Versions.Seen(http)), actor, cancellation)).Refusal is { } refusal
            ? await RefusedAsync(refusal, db, cancellation)
            : TypedResults.NoContent();

    // Where somebody else saved in between, with what is there now.
    private static async Task<ProblemHttpResult> RefusedAsync(Refusal refusal, FidDb db, CancellationToken cancellation) =>
        Problems.Of(
            refusal,
            refusal.Kind == RefusalKind.ChangedMeanwhile && await db.FieldDrafts.AsNoTracking().SingleOrDefaultAsync(cancellation) is { } there
                ? DraftResponse.Of(there)
                : null
        );

    private static async Task<Results<Ok<ReviewResponse>, ProblemHttpResult>> Review(
        DraftRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var read = SaveFieldDraft.Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Problems.Invalid(read.Problems);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var review = await new FieldPublishing(db).ReviewAsync(configuration, actor.Today, reader.Sees, cancellation);
        return TypedResults.Ok(ReviewResponse.Of(review));
    }

    /// <summary>A sample record with a draft applied, as a role sees it. Nothing is saved.</summary>
    private static async Task<Results<Ok<TriedRecord>, ProblemHttpResult>> Try(TryRequest request, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var read = SaveFieldDraft.Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Problems.Invalid(read.Problems);
        var stages = await db
            .Stages.AsNoTracking()
            .Where(s => s.Occasion == Occasion.Arrival)
            .OrderBy(s => s.Position)
            .Select(s => s.Key)
            .ToListAsync(cancellation);
        var compiled = FieldSet.Read(configuration.Fields, stages);
        if (compiled.Answer is not { } set)
            return Problems.Invalid([.. compiled.Problems.Select(p => p.Under("/configuration"))]);
        var today = actor.Today;
        var values = request.Values.Where(v => set.Find(v.Key) is not null).ToDictionary(v => v.Key, v => v.Value);
        var fields = new LiveFields(0, configuration.Sections, set, RoleSet.Shipped);
        var rights = FieldRights.OfRoles(set, [request.Role]);
        var record = await ShownRecord.EvaluateAsync(db, fields, values, rights, [.. values.Keys], request.Changed, request.Stage, today, cancellation);
        var names = await ListNames.EntriesAsync(db, cancellation);
        return TypedResults.Ok(
            new TriedRecord(
                [
                    .. configuration.Sections.Select(s => new SectionResponse(
                        s.Key,
                        Labels.Of(s.Labels),
                        [
                            .. configuration
                                .Fields.Where(f => f.Section == s.Key && record.Access.ContainsKey(f.Key))
                                .Select(f => RecordReader.Bare(f, record.Access[f.Key])),
                        ]
                    )),
                ],
                await EvaluationResponse.OfAsync(db, fields, record, names, cancellation)
            )
        );
    }

    private static async Task<Results<Ok<PublishedFields>, ProblemHttpResult>> Publish(
        PublishRequest request,
        Actor actor,
        FidDb db,
        PublishFields publish,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await publish.DoAsync(new PublishFieldsRequest(request.Why, request.Despite, Platform.Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var published, out var refusal) ? TypedResults.Ok(published) : await RefusedAsync(refusal, db, cancellation);
    }
}

/// <param name="Configuration">A configuration as its JSON Schema has it.</param>
public sealed record DraftRequest(JsonObject Configuration);

/// <summary>The draft.</summary>
/// <param name="Version">What to send as If-Match when saving or publishing it.</param>
/// <param name="BasedOn">The version it was begun from.</param>
/// <param name="AskedBy">Who asked for it to be published, where somebody else has to agree.</param>
/// <param name="AskedById">The account of who asked.</param>
public sealed record DraftResponse(JsonObject Configuration, string Version, int BasedOn, Instant At, string ByName, string? AskedBy, Guid? AskedById)
{
    internal static DraftResponse Of(FieldDraft draft) =>
        new(
            JsonNode.Parse(draft.Configuration)!.AsObject(),
            Platform.Versions.Tag(draft.RowVersion),
            draft.BasedOn,
            draft.At,
            draft.ByName,
            draft.AskedByName,
            draft.AskedById
        );
}

/// <param name="Widened">What is guarded and would be seen by more, so that a second person has to agree.</param>
public sealed record ReviewResponse(ReviewFinding[] Findings, FieldDifference[] Differences, Touched[] Touched, WidenedAccess[] Widened)
{
    internal static ReviewResponse Of(DraftReview review) =>
        new(
            [.. review.Findings.Select(f => new ReviewFinding(f.Code, [.. f.Fields], f.Message, f.Suggestion, f.Part, f.Character, FieldPublishing.Blocks(f)))],
            [.. review.Differences],
            [.. review.Touched],
            [.. review.Widened]
        );
}

/// <param name="Part">The part of the first field it is about; null for the whole.</param>
/// <param name="Character">For a formula, the character, from 1, at which it is wrong.</param>
/// <param name="Blocks">Whether it keeps the draft from being published.</param>
public sealed record ReviewFinding(string Code, string[] Fields, string Message, string? Suggestion, string? Part, int? Character, bool Blocks);

/// <param name="Values">What is entered so far, by field key.</param>
/// <param name="Changed">The fields changed just now, whose rules act.</param>
public sealed record TryRequest(JsonObject Configuration, string Role, string? Stage, Dictionary<string, JsonElement> Values, string[] Changed);

public sealed record TriedRecord(SectionResponse[] Sections, EvaluationResponse Evaluation);

/// <param name="Despite">Whether findings that are only advice are accepted.</param>
public sealed record PublishRequest(string? Why, bool Despite);
