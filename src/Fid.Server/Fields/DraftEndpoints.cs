using System.Security.Claims;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Server.Hires;
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
        draft.MapPut("", Save).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
        draft.MapDelete("", Discard).WhoMay(Access.Coordinates).ProducesProblem(409).ProducesProblem(412);
        draft.MapPost("/review", Review).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly).ProducesProblem(400);
        draft.MapPost("/try", Try).WhoMay(Access.Coordinates).ProducesProblem(400);
        draft.MapPost("/publish", Publish).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(412);
    }

    /// <summary>Keeps a draft. Its first save needs no version; later ones say with If-Match which they saw.</summary>
    private static async Task<Results<Ok<DraftResponse>, ProblemHttpResult>> Save(
        DraftRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpRequest http, CancellationToken cancellation)
    {
        var read = Read(request.Configuration);
        if (read.Answer is not { } configuration) return Invalid(read);
        var text = Encoding.UTF8.GetString(configuration.Write());
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await new FieldPublishing(db).LockDraftAsync(cancellation);
        var there = await db.FieldDrafts.SingleOrDefaultAsync(cancellation);
        if (there is not null && there.RowVersion != Platform.Versions.Seen(http)) return Problems.Stale(DraftResponse.Of(there));
        // It was saved by somebody who saw a draft: that one must not come to life again behind their back.
        if (there is null && Platform.Versions.Seen(http) is not null) return Gone();
        if (there is null)
            db.FieldDrafts.Add(there = new FieldDraft { Configuration = text, BasedOn = await new FieldPublishing(db).LiveVersionAsync(cancellation), At = clock.Now, ById = user.Id(), ByName = Name(user, clock) });
        else
            (there.Configuration, there.At, there.ById, there.ByName, there.AskedById, there.AskedByName) = (text, clock.Now, user.Id(), Name(user, clock), null, null);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(DraftResponse.Of(there));
    }

    /// <summary>Throws the draft away: the one that was seen, and no later one.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Discard(FidDb db, HttpRequest http, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await new FieldPublishing(db).LockDraftAsync(cancellation);
        if (await db.FieldDrafts.SingleOrDefaultAsync(cancellation) is not { } draft) return TypedResults.NoContent();
        if (draft.RowVersion != Platform.Versions.Seen(http)) return Problems.Stale(DraftResponse.Of(draft));
        db.FieldDrafts.Remove(draft);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult Gone() => Problems.Conflict("draft-gone", "The draft was published or thrown away meanwhile. Look at what is there now.");

    private static async Task<Results<Ok<ReviewResponse>, ProblemHttpResult>> Review(
        DraftRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var read = Read(request.Configuration);
        if (read.Answer is not { } configuration) return Invalid(read);
        var reader = await Reader.OfAsync(user, db, cancellation);
        var review = await new FieldPublishing(db).ReviewAsync(configuration, await clock.TodayAsync(db, cancellation), reader.Sees, cancellation);
        return TypedResults.Ok(ReviewResponse.Of(review));
    }

    /// <summary>A sample record with a draft applied, as a role sees it. Nothing is saved.</summary>
    private static async Task<Results<Ok<TriedRecord>, ProblemHttpResult>> Try(TryRequest request, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var read = Read(request.Configuration);
        if (read.Answer is not { } configuration) return Invalid(read);
        var stages = await db.Stages.AsNoTracking().OrderBy(s => s.Position).Select(s => s.Key).ToListAsync(cancellation);
        var compiled = FieldSet.Read(configuration.Fields, stages);
        if (compiled.Answer is not { } set) return Invalid(compiled);
        var today = await clock.TodayAsync(db, cancellation);
        var values = request.Values.Where(v => set.Find(v.Key) is not null).ToDictionary(v => v.Key, v => v.Value);
        var fields = new LiveFields(0, configuration.Sections, set);
        var record = await ShownRecord.EvaluateAsync(db, fields, values, [request.Role], [.. values.Keys], request.Changed, request.Stage, today, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation);
        return TypedResults.Ok(new TriedRecord(
            [.. configuration.Sections.Select(s => new SectionResponse(s.Key, Labels.Of(s.Labels), [.. configuration.Fields.Where(f => f.Section == s.Key && record.Access.ContainsKey(f.Key)).Select(f => RecordReader.Bare(f, record.Access[f.Key]))]))],
            await EvaluationResponse.OfAsync(db, fields, record, names, cancellation)));
    }

    /// <summary>Makes the draft live. Findings that are only advice need to be accepted; where it lets more be seen of what is
    /// guarded, one asks for it and another agrees.</summary>
    private static async Task<Results<Ok<PublishedResponse>, ProblemHttpResult>> Publish(
        PublishRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpRequest http, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } reason) return Problems.Invalid(reason);
        // Every record's projection is brought up to it.
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await new FieldPublishing(db).LockDraftAsync(cancellation);
        if (await db.FieldDrafts.SingleOrDefaultAsync(cancellation) is not { } draft) return Gone();
        if (draft.RowVersion != Platform.Versions.Seen(http)) return Problems.Stale(DraftResponse.Of(draft));
        var publishing = new FieldPublishing(db);
        if (draft.BasedOn != await publishing.LiveVersionAsync(cancellation))
            return Problems.Conflict("published-meanwhile", "Another version was published since this draft was begun. Compare with it, and save the draft anew.");
        var configuration = FieldConfiguration.Read(Encoding.UTF8.GetBytes(draft.Configuration)).Answer!;
        var today = await clock.TodayAsync(db, cancellation);
        var review = await publishing.ReviewAsync(configuration, today, (await Reader.OfAsync(user, db, cancellation)).Sees, cancellation);
        var findings = review.Findings;
        if (findings.Any(FieldPublishing.Blocks) || (findings.Count > 0 && !request.Despite))
            return Problems.Invalid([.. findings.Select(f => new Problem($"/{f.Fields[0]}", f.Code, f.Message))]);
        if (review.Widened.Count > 0 && (draft.AskedById is not { } asked || asked == user.Id()))
        {
            if (draft.AskedById is not null) return Problems.Conflict("second-person-needed", "More would be seen of pay or of sensitive fields. Somebody else has to agree to it.");
            (draft.AskedById, draft.AskedByName) = (user.Id(), Name(user, clock));
            var opened = string.Join(", ", review.Widened.Select(w => $"{w.Field} → {string.Join(' ', w.Roles)}"));
            db.Changes.Add(user.Author(clock, "fields").Change("fields.widenAsked", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), null, Reason.Clean(request.Why)) with
            {
                Details = JsonSerializer.Serialize(new { opened }),
            });
            await db.SaveChangesAsync(cancellation);
            await transaction.CommitAsync(cancellation);
            return TypedResults.Ok(new PublishedResponse(null));
        }
        db.Entry(draft).State = EntityState.Detached;
        var version = await publishing.PublishAsync(configuration, review.Differences, user.Author(clock, "fields"), Reason.Clean(request.Why), cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new PublishedResponse(version));
    }

    private static string Name(ClaimsPrincipal user, FirmClock clock) => user.Author(clock, "fields").Name;

    private static Outcome<FieldConfiguration> Read(JsonObject configuration) => FieldConfiguration.Read(Encoding.UTF8.GetBytes(configuration.ToJsonString()));

    private static ProblemHttpResult Invalid<T>(Outcome<T> outcome)
        where T : class => Problems.Invalid([.. outcome.Problems.Select(p => p.Under("/configuration"))]);
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
    internal static DraftResponse Of(FieldDraft draft) => new(
        JsonNode.Parse(draft.Configuration)!.AsObject(), Platform.Versions.Tag(draft.RowVersion), draft.BasedOn, draft.At, draft.ByName, draft.AskedByName, draft.AskedById);
}

/// <param name="Widened">What is guarded and would be seen by more, so that a second person has to agree.</param>
public sealed record ReviewResponse(ReviewFinding[] Findings, FieldDifference[] Differences, Touched[] Touched, WidenedAccess[] Widened)
{
    internal static ReviewResponse Of(DraftReview review) => new(
        [.. review.Findings.Select(f => new ReviewFinding(f.Code, [.. f.Fields], f.Message, f.Suggestion, f.Part, f.Character, FieldPublishing.Blocks(f)))],
        [.. review.Differences], [.. review.Touched], [.. review.Widened]);
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

/// <param name="Version">The version that is live now; null where somebody else has to agree first.</param>
public sealed record PublishedResponse(int? Version);
