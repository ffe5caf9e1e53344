using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Retires a template, or brings it back. Not while others are built on it.</summary>
public sealed class RetireTemplate(FidDb db)
{
    public async Task<ActResult> DoAsync(RetireTemplateRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.TemplatesAsync(db, cancellation);
        if (await db.RoleTemplates.SingleOrDefaultAsync(t => t.Code == request.Code, cancellation) is not { } template)
            return Refusal.NotFound;
        var above = (await TemplateSet.LoadAsync(db, cancellation))
            .All.Where(t => t.Spec.BuildsOn == request.Code && !t.Retired)
            .Select(t => t.Name)
            .Order(StringComparer.Ordinal)
            .ToList();
        if (request.Retired && above.Count > 0)
            return Refusal.Conflict("built-on", $"These are built on it: {string.Join(", ", above)}. Let them build on something else, or retire them first.");
        if (template.Retired == request.Retired)
            return ActResult.Done;
        template.Retired = request.Retired;
        act.Note(actor.Author("templates").Change(request.Retired ? "template.retired" : "template.broughtBack", template.Id, request.Code));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Retired">Whether it is to be retired, or in use again.</param>
public sealed record RetireTemplateRequest(string Code, bool Retired);
