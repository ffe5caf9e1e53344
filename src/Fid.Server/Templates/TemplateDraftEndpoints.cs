using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>The draft of a template's next version: saved, thrown away, published.</summary>
internal static class TemplateDraftEndpoints
{
    public static void MapTemplateDrafts(this IEndpointRouteBuilder app)
    {
        var draft = app.MapGroup("/api/templates/{code}/draft");
        draft.MapPut("", Save).WhoMay(Actions.Edit, Things.Template).ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
        draft.MapDelete("", Discard).WhoMay(Actions.Edit, Things.Template).ProducesProblem(409).ProducesProblem(412);
        draft
            .MapPost("/publish", Publish)
            .WhoMay(Actions.Edit, Things.Template)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(412);
    }

    private static async Task<Results<Ok<TemplateDraftResponse>, ProblemHttpResult>> Save(
        string code,
        TemplateDraftRequest request,
        Actor actor,
        FidDb db,
        SaveTemplateDraft save,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(new SaveTemplateDraftRequest(code, request.Spec, Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var draft, out var refusal)
            ? TypedResults.Ok(TemplateDraftResponse.Of(draft, await Reader.OfAsync(actor, db, cancellation)))
            : await RefusedAsync(refusal, code, actor, db, cancellation);
    }

    /// <summary>Throws the draft away: the one that was seen, and no later one.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Discard(
        string code,
        Actor actor,
        FidDb db,
        DiscardTemplateDraft discard,
        HttpRequest http,
        CancellationToken cancellation
    ) =>
        (await discard.DoAsync(new DiscardTemplateDraftRequest(code, Versions.Seen(http)), actor, cancellation)).Refusal is { } refusal
            ? await RefusedAsync(refusal, code, actor, db, cancellation)
            : TypedResults.NoContent();

    private static async Task<Results<Ok<PublishedTemplate>, ProblemHttpResult>> Publish(
        string code,
        TemplatePublication request,
        Actor actor,
        FidDb db,
        PublishTemplate publish,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await publish.DoAsync(new PublishTemplateRequest(code, request.Why, Versions.Seen(http)), actor, cancellation);
        return result.IsDone(out var version, out var refusal)
            ? TypedResults.Ok(new PublishedTemplate(version))
            : await RefusedAsync(refusal, code, actor, db, cancellation);
    }

    // Where somebody else saved in between, with what is there now.
    private static async Task<ProblemHttpResult> RefusedAsync(Refusal refusal, string code, Actor actor, FidDb db, CancellationToken cancellation) =>
        Problems.Of(
            refusal,
            refusal.Kind == RefusalKind.ChangedMeanwhile
            && await db.TemplateDrafts.AsNoTracking().SingleOrDefaultAsync(d => d.Code == code, cancellation) is { } there
                ? TemplateDraftResponse.Of(there, await Reader.OfAsync(actor, db, cancellation))
                : null
        );
}

public sealed record TemplateDraftRequest(TemplateSpec Spec);

/// <param name="Version">What to send as If-Match when saving or publishing it.</param>
/// <param name="BasedOn">The version it was begun from; 0 for a template that is new.</param>
public sealed record TemplateDraftResponse(TemplateSpec Spec, string Version, int BasedOn, Instant At, string ByName)
{
    internal static TemplateDraftResponse Of(TemplateDraft draft, Reader reader) =>
        new(reader.Seen(draft.Spec), Versions.Tag(draft.RowVersion), draft.BasedOn, draft.At, draft.ByName);
}

/// <param name="Why">Why, in the reader's words.</param>
public sealed record TemplatePublication(string? Why);

public sealed record PublishedTemplate(int Version);
