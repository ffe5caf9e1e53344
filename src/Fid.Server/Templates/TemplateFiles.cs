using System.Security.Claims;
using Fid.Core;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Templates;

/// <summary>Templates as files: out with all they need, and in again as drafts.</summary>
internal static class TemplateFiles
{
    public static void MapTemplateFiles(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/templates/{code}/file", Export).WhoMay(Access.Coordinates).ProducesProblem(404);
        app.MapPost("/api/templates/import/check", Check).WhoMay(Access.Coordinates).ProducesProblem(400);
        app.MapPost("/api/templates/import", Import).WhoMay(Access.Coordinates).ProducesProblem(400);
    }

    private static async Task<Results<Ok<TemplateParcel>, ProblemHttpResult>> Export(string code, ClaimsPrincipal user, FidDb db, HttpResponse response, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(user, db, cancellation);
        var book = TemplateBook.Of((await TemplateBook.LoadAsync(db, cancellation)).All.Select(t => new RoleTemplate { Code = t.Code, Version = t.Version, Retired = t.Retired, Spec = reader.Seen(t.Spec) }));
        if (book.Find(code) is not { } template) return Problems.NotFound();
        response.Headers.ContentDisposition = $"attachment; filename=\"{code}.json\"";
        return TypedResults.Ok(await new TemplateTransfer(db).PackAsync(book, template, cancellation));
    }

    /// <summary>What a file holds, and which entries of lists the firm does not have.</summary>
    private static async Task<Results<Ok<ParcelCheck>, ProblemHttpResult>> Check(TemplateParcel parcel, FidDb db, CancellationToken cancellation)
    {
        if (NotOurs(parcel) is { } wrong) return wrong;
        var missing = await new TemplateTransfer(db).MissingAsync(parcel, cancellation);
        return TypedResults.Ok(new ParcelCheck([.. parcel.Templates.Select(t => t.Spec.Name)], [.. missing.Select(m => new MissingEntry(m.List, m.Code, m.Name))]));
    }

    private static async Task<Results<Ok<ImportedTemplates>, ProblemHttpResult>> Import(
        ImportTemplatesRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        if (NotOurs(request.File) is { } wrong) return wrong;
        var reader = await Reader.OfAsync(user, db, cancellation);
        var forbidden = request.File.Templates.SelectMany((t, i) => reader.Forbidden(t.Spec, $"/file/templates/{i}/spec")).ToList();
        if (forbidden.Count > 0) return Problems.Invalid(forbidden);
        var there = (await db.ListEntries.Select(e => new { e.List, e.Code }).ToListAsync(cancellation)).Select(e => (e.List, e.Code)).ToHashSet();
        var unknown = request.Instead.Select((m, i) => (m, i)).Where(m => !there.Contains((m.m.List, m.m.To))).ToList();
        if (unknown.Count > 0) return Problems.Invalid([.. unknown.Select(u => new Problem($"/instead/{u.i}/to", "unknown-entry", "Choose an entry of the list."))]);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var instead = request.Instead.DistinctBy(m => (m.List, m.Code)).ToDictionary(m => (m.List, m.Code), m => m.To);
        var unpacked = await new TemplateTransfer(db).UnpackAsync(request.File, instead, user.Author(clock, "templates"), cancellation);
        if (unpacked.Answer is not { } codes) return Problems.Invalid(unpacked.Problems);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new ImportedTemplates([.. codes]));
    }

    private static ProblemHttpResult? NotOurs(TemplateParcel parcel) =>
        parcel.Fid == TemplateParcel.Kind && parcel.Templates is { Length: > 0 and <= 100 } && parcel.Entries is not null && parcel.SharedTasks is not null && parcel.Templates.All(t => t.Spec?.Values is not null && t.Spec.Lists is not null && TemplateDrafts.Code().IsMatch(t.Code ?? ""))
            ? null : Problems.Invalid(new Problem("/fid", "bad-file", "This is no file of templates from Fid."));
}

/// <param name="Templates">Names of the templates in the file.</param>
public sealed record ParcelCheck(string[] Templates, MissingEntry[] Missing);

public sealed record MissingEntry(string List, string Code, string Name);

/// <param name="Instead">For entries the firm does not have, others that stand for them; those left out are created.</param>
public sealed record ImportTemplatesRequest(TemplateParcel File, InsteadEntry[] Instead);

public sealed record InsteadEntry(string List, string Code, string To);

/// <param name="Codes">The codes of the drafts.</param>
public sealed record ImportedTemplates(string[] Codes);
