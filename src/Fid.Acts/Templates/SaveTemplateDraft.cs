using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Keeps the draft of a template's next version, of a new template too. Its first save needs no version; later ones say which
/// they saw.</summary>
public sealed class SaveTemplateDraft(FidDb db)
{
    public async Task<ActResult<TemplateDraft>> DoAsync(SaveTemplateDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (!TemplateCode.IsOne(request.Code))
            return Refusal.Invalid("/code", "bad-value", "A code has up to 40 small letters, digits and hyphens.");
        if (request.Spec.Lists.Keys.FirstOrDefault(l => !TemplateLists.All.Contains(l)) is { } unknown)
            return Refusal.Invalid($"/spec/lists/{unknown}", "unknown-property", "Templates have no such list.");
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.Forbidden(request.Spec) is { Count: > 0 } forbidden)
            return Refusal.Invalid(forbidden);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.TemplatesAsync(db, cancellation);
        var live = await db.RoleTemplates.AsNoTracking().SingleOrDefaultAsync(t => t.Code == request.Code, cancellation);
        var draft = await db.TemplateDrafts.SingleOrDefaultAsync(d => d.Code == request.Code, cancellation);
        if (act.IsDoneAlready && draft is not null)
            return draft;
        if (live is not null && live.Spec.Occasion != request.Spec.Occasion)
            return Refusal.Invalid("/spec/occasion", "fixed", "What a template is for stays as it was published. Make another template.");
        if (DraftVersion.Check(draft?.RowVersion, request.Version) is { } stale)
            return stale;
        var (author, spec) = (actor.Author("templates"), reader.WithUnseen(request.Spec, draft?.Spec ?? live?.Spec));
        if (draft is null)
            db.TemplateDrafts.Add(
                draft = new TemplateDraft
                {
                    Code = request.Code,
                    Spec = spec,
                    BasedOn = live?.Version ?? 0,
                    At = author.At,
                    ByName = author.Name,
                }
            );
        // Saved in the knowledge of what is live: whoever saw another version be published has compared.
        else
            (draft.Spec, draft.BasedOn, draft.At, draft.ByName) = (spec, live?.Version ?? 0, author.At, author.Name);
        await act.CommitAsync(cancellation);
        return draft;
    }
}

/// <param name="Version">The version of the draft that was seen; null where there was none.</param>
public sealed record SaveTemplateDraftRequest(string Code, TemplateSpec Spec, uint? Version);
