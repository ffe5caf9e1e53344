using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Templates;

/// <summary>Templates as files: out with all they need, and in again as drafts.</summary>
internal static class TemplateFiles
{
    public static void MapTemplateFiles(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/templates/{code}/file", Export).WhoMay(Actions.Edit, Things.Template).ProducesProblem(404);
        app.MapPost("/api/templates/import/check", Check).WhoMay(Actions.Edit, Things.Template).ProducesProblem(400);
        app.MapPost("/api/templates/import", Import).WhoMay(Actions.Edit, Things.Template).ProducesProblem(400);
    }

    private static async Task<Results<Ok<TemplateExport>, ProblemHttpResult>> Export(
        string code,
        Actor actor,
        FidDb db,
        HttpResponse response,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var book = TemplateSet.Of(
            (await TemplateSet.LoadAsync(db, cancellation)).All.Select(t => new RoleTemplate
            {
                Code = t.Code,
                Version = t.Version,
                Retired = t.Retired,
                Spec = reader.Seen(t.Spec),
            })
        );
        if (book.Find(code) is not { } template)
            return Problems.NotFound();
        response.Headers.ContentDisposition = $"attachment; filename=\"{code}.json\"";
        return TypedResults.Ok(await new TemplateTransfer(db).PackAsync(book, template, cancellation));
    }

    /// <summary>What a file holds, and which entries of lists the firm does not have.</summary>
    private static async Task<Results<Ok<ExportCheck>, ProblemHttpResult>> Check(TemplateExport parcel, FidDb db, CancellationToken cancellation)
    {
        if (ImportTemplates.Check(parcel) is { } wrong)
            return Problems.Of(wrong);
        var missing = await new TemplateTransfer(db).MissingAsync(parcel, cancellation);
        return TypedResults.Ok(
            new ExportCheck([.. parcel.Templates.Select(t => t.Spec.Name)], [.. missing.Select(m => new MissingEntry(m.List, m.Code, m.Name))])
        );
    }

    private static async Task<Results<Ok<ImportedTemplates>, ProblemHttpResult>> Import(
        ImportTemplatesRequest request,
        Actor actor,
        ImportTemplates import,
        CancellationToken cancellation
    ) =>
        (await import.DoAsync(request, actor, cancellation)).IsDone(out var codes, out var refusal)
            ? TypedResults.Ok(new ImportedTemplates(codes))
            : Problems.Of(refusal);
}

/// <param name="Templates">Names of the templates in the file.</param>
public sealed record ExportCheck(string[] Templates, MissingEntry[] Missing);

public sealed record MissingEntry(string List, string Code, string Name);

/// <param name="Codes">The codes of the drafts.</param>
public sealed record ImportedTemplates(string[] Codes);
