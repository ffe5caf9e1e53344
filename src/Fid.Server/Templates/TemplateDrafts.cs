using System.Security.Claims;
using System.Text.RegularExpressions;
using Fid.Core;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.Templates;
using Fid.Server.Hires;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>The draft of a template's next version: saved, thrown away, published.</summary>
internal static partial class TemplateDrafts
{
    public static void MapTemplateDrafts(this IEndpointRouteBuilder app)
    {
        var draft = app.MapGroup("/api/templates/{code}/draft");
        draft.MapPut("", Save).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(412);
        draft.MapDelete("", Discard).WhoMay(Access.Coordinates);
        draft.MapPost("/publish", Publish).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(412);
    }

    /// <summary>Keeps a draft, of a new template too. Its first save needs no version; later ones say with If-Match which they saw.</summary>
    private static async Task<Results<Ok<TemplateDraftResponse>, ProblemHttpResult>> Save(
        string code, TemplateDraftRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpRequest http, CancellationToken cancellation)
    {
        if (!Code().IsMatch(code)) return Problems.Invalid(new Problem("/code", "bad-value", "A code has up to 40 small letters, digits and hyphens."));
        if (request.Spec.Lists.Keys.FirstOrDefault(l => !Core.Templates.TemplateLists.All.Contains(l)) is { } unknown) return Problems.Invalid(new Problem($"/spec/lists/{unknown}", "unknown-property", "Templates have no such list."));
        var reader = await Reader.OfAsync(user, db, cancellation);
        if (reader.Forbidden(request.Spec) is { Count: > 0 } forbidden) return Problems.Invalid(forbidden);
        var live = await db.RoleTemplates.AsNoTracking().SingleOrDefaultAsync(t => t.Code == code, cancellation);
        var author = user.Author(clock, "templates");
        var draft = await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == code, cancellation);
        var spec = reader.WithUnseen(request.Spec, draft?.Spec ?? live?.Spec);
        if (draft is null)
        {
            draft = new TemplateDraft { Code = code, Spec = spec, BasedOn = live?.Version ?? 0, At = author.At, ByName = author.Name };
            db.TemplateDrafts.Add(draft);
        }
        else
        {
            if (Versions.Seen(http) != draft.RowVersion) return Problems.Stale(TemplateDraftResponse.Of(draft, reader));
            // Saved in the knowledge of what is live: whoever saw another version be published has compared.
            (draft.Spec, draft.BasedOn, draft.At, draft.ByName) = (spec, live?.Version ?? 0, author.At, author.Name);
        }
        await db.SaveChangesAsync(cancellation);
        return TypedResults.Ok(TemplateDraftResponse.Of(draft, reader));
    }

    private static async Task<NoContent> Discard(string code, FidDb db, CancellationToken cancellation)
    {
        await db.TemplateDrafts.Where(d => d.Code == code).ExecuteDeleteAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>Makes the draft the live version. Hires under way keep what they have until somebody updates them.</summary>
    private static async Task<Results<Ok<PublishedTemplate>, ProblemHttpResult>> Publish(
        string code, PublishTemplateRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpRequest http, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } reason) return Problems.Invalid(reason);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        // One publishes at a time: what a draft builds on stays as it was looked through.
        await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock({PublishLock})", cancellation);
        if (await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == code, cancellation) is not { } draft) return Problems.NotFound();
        var reader = await Reader.OfAsync(user, db, cancellation);
        if (draft.RowVersion != Versions.Seen(http)) return Problems.Stale(TemplateDraftResponse.Of(draft, reader));
        var template = await db.RoleTemplates.SingleOrDefaultAsync(t => t.Code == code, cancellation);
        if (draft.BasedOn != (template?.Version ?? 0)) return Problems.Conflict("published-meanwhile", "Another version was published since this draft was begun. Compare with it, and save the draft anew.");
        if (reader.ChangesForbidden(template?.Spec, draft.Spec))
            return Problems.Conflict("not-yours-to-change", "The draft sets something that you may not change. Let somebody publish it who may.");
        var today = await clock.TodayAsync(db, cancellation);
        var book = await TemplateBook.LoadAsync(db, cancellation);
        var drafted = new RoleTemplate { Code = code, Version = draft.BasedOn + 1, Spec = draft.Spec };
        var findings = await TemplateExamples.FindingsAsync(db, await new FieldBook(db).LiveAsync(cancellation), book.With(drafted), drafted, today, cancellation);
        if (findings.Where(f => f.Blocks).ToList() is { Count: > 0 } wrong)
            return Problems.Invalid([.. wrong.Select(f => new Problem(f.Pointer, f.Code, f.Message))]);
        var author = user.Author(clock, "templates");
        var publishing = new TemplatePublishing(db);
        if (template is null) publishing.Add(drafted, author, Reason.Clean(request.Why));
        else publishing.Put(template, draft.Spec, author, "template.published", null, Reason.Clean(request.Why));
        db.TemplateDrafts.Remove(draft);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new PublishedTemplate(drafted.Version));
    }

    private const long PublishLock = 0x7E4B1A7E;

    [GeneratedRegex("^[a-z0-9]([a-z0-9-]{0,38}[a-z0-9])?$")]
    internal static partial Regex Code();
}

public sealed record TemplateDraftRequest(TemplateSpec Spec);

/// <param name="Version">What to send as If-Match when saving or publishing it.</param>
/// <param name="BasedOn">The version it was begun from; 0 for a template that is new.</param>
public sealed record TemplateDraftResponse(TemplateSpec Spec, string Version, int BasedOn, Instant At, string ByName)
{
    internal static TemplateDraftResponse Of(TemplateDraft draft, Reader reader) => new(reader.Seen(draft.Spec), Versions.Tag(draft.RowVersion), draft.BasedOn, draft.At, draft.ByName);
}

public sealed record PublishTemplateRequest(string? Why);

public sealed record PublishedTemplate(int Version);
