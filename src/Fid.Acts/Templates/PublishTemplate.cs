using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Makes a template's draft its live version. Hires under way keep what they have until somebody updates them.</summary>
public sealed class PublishTemplate(FidDb db)
{
    /// <returns>The version that is live now.</returns>
    public async Task<ActResult<int>> DoAsync(PublishTemplateRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        // One publishes at a time: what a draft builds on stays as it was looked through.
        await Locks.TemplatesAsync(db, cancellation);
        var template = await db.RoleTemplates.SingleOrDefaultAsync(t => t.Code == request.Code, cancellation);
        if (act.IsDoneAlready && template is not null)
            return template.Version;
        var draft = await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == request.Code, cancellation);
        if (template is null && draft is null)
            return Refusal.NotFound;
        if (draft is null)
            return DraftVersion.Gone;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        if (draft.BasedOn != (template?.Version ?? 0))
            return Refusal.Conflict(
                "published-meanwhile",
                "Another version was published since this draft was begun. Compare with it, and save the draft anew."
            );
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.ChangesForbidden(template?.Spec, draft.Spec))
            return Refusal.Conflict("not-yours-to-change", "The draft sets something that you may not change. Let somebody publish it who may.");
        var drafted = new RoleTemplate
        {
            Code = request.Code,
            Version = draft.BasedOn + 1,
            Spec = draft.Spec,
        };
        var book = (await TemplateSet.LoadAsync(db, cancellation)).With(drafted);
        var findings = await TemplateFindings.OfAsync(db, reader.Fields, book, drafted, actor.Today, cancellation);
        if (findings.Where(f => f.Blocks).ToList() is { Count: > 0 } wrong)
            return Refusal.Invalid([.. wrong.Select(f => new Problem(f.Pointer, f.Code, f.Message))]);
        var (author, publishing) = (actor.Author("templates"), new TemplatePublishing(db));
        if (template is null)
            publishing.Add(drafted, author, Reason.Clean(request.Why));
        else
            publishing.Put(template, draft.Spec, author, "template.published", null, Reason.Clean(request.Why));
        db.TemplateDrafts.Remove(draft);
        await act.CommitAsync(cancellation);
        return drafted.Version;
    }
}

/// <param name="Version">The version of the draft that was seen.</param>
public sealed record PublishTemplateRequest(string Code, string? Why, uint? Version);
