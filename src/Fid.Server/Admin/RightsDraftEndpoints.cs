using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.RoleDrafts;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Admin;

/// <summary>The draft of the firm's roles and groups: saved, looked through, made live.</summary>
internal static class RightsDraftEndpoints
{
    private const int MostNamed = 20;

    public static void MapRightsDraft(this IEndpointRouteBuilder rights)
    {
        var draft = rights.MapGroup("/draft");
        draft.MapPut("", Save).WhoMay(Actions.Edit, Things.Role).ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
        draft.MapDelete("", Discard).WhoMay(Actions.Edit, Things.Role).ProducesProblem(409).ProducesProblem(412);
        draft.MapPost("/review", Review).WhoMay(Actions.Edit, Things.Role).RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
        draft.MapPost("/publish", Publish).WhoMay(Actions.Edit, Things.Role).AsksAgain().ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
    }

    private static async Task<Results<Ok<RightsDraftResponse>, ProblemHttpResult>> Save(
        RightsDraftRequest request,
        Actor actor,
        FidDb db,
        SaveRightsDraft save,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(new SaveRightsDraftRequest(request.Configuration, Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var draft, out var refusal) ? TypedResults.Ok(RightsDraftResponse.Of(draft)) : await RefusedAsync(refusal, db, cancellation);
    }

    /// <summary>Throws the draft away: the one that was seen, and no later one.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Discard(
        Actor actor,
        FidDb db,
        DiscardRightsDraft discard,
        HttpRequest http,
        CancellationToken cancellation
    ) =>
        (await discard.DoAsync(new DiscardRightsDraftRequest(Versions.Seen(http)), actor, cancellation)).Refusal is { } refusal
            ? await RefusedAsync(refusal, db, cancellation)
            : TypedResults.NoContent();

    // Where somebody else saved in between, with what is there now.
    private static async Task<ProblemHttpResult> RefusedAsync(Refusal refusal, FidDb db, CancellationToken cancellation) =>
        Problems.Of(
            refusal,
            refusal.Kind == RefusalKind.ChangedMeanwhile && await db.RightsDrafts.AsNoTracking().SingleOrDefaultAsync(cancellation) is { } there
                ? RightsDraftResponse.Of(there)
                : null
        );

    /// <summary>What a configuration would give and take, role by role and person by person. Nothing is saved.</summary>
    private static async Task<Results<Ok<RightsReviewResponse>, ProblemHttpResult>> Review(
        RightsDraftRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var read = SaveRightsDraft.Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Problems.Invalid(read.Problems);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var review = await RightsReview.OfAsync(db, configuration, actor.Today, cancellation);
        var named = review.Groups.SelectMany(g => g.Coming.Take(MostNamed).Concat(g.Going.Take(MostNamed))).Distinct().ToArray();
        var names = (
            await reader
                .Readable(db.CurrentRecords.AsNoTracking().Where(r => named.Contains(r.EmploymentId)))
                .Join(db.Employments, r => r.EmploymentId, e => e.Id, (record, e) => new { record, e.Number })
                .ToListAsync(cancellation)
        ).ToDictionary(r => r.record.EmploymentId, r => reader.NameOf(r.record, r.Number));
        return TypedResults.Ok(
            new RightsReviewResponse(
                [.. review.Problems.Select(p => ProblemEntry.Of(p.Under("/configuration")))],
                [.. review.Roles.Select(r => new ChangedRole(r.Role, r.IsNew, r.IsGone, Words(r.Difference.Gained), Words(r.Difference.Lost)))],
                [.. review.Groups.Select(g => new ChangedGroup(g.Group, g.Before, g.After, Named(g.Coming), Named(g.Going)))],
                [.. review.Holders.Select(h => new ChangedHolder(h.Account, h.Name, Words(h.Difference.Gained), Words(h.Difference.Lost)))],
                review.Widens,
                review.WidensFor(actor.AccountId),
                [.. review.Proved],
                [.. review.NoLongerProved]
            )
        );

        string[] Named(IEnumerable<Guid> people) => [.. people.Take(MostNamed).Where(names.ContainsKey).Select(p => names[p])];

        static RightResponse[] Words(IEnumerable<Right> rights) => [.. rights.Select(RightResponse.Of)];
    }

    private static async Task<Results<Ok<PublishedRights>, ProblemHttpResult>> Publish(
        PublishRightsBody request,
        Actor actor,
        FidDb db,
        PublishRights publish,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await publish.DoAsync(new PublishRightsRequest(request.Why, Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var published, out var refusal) ? TypedResults.Ok(published) : await RefusedAsync(refusal, db, cancellation);
    }
}
