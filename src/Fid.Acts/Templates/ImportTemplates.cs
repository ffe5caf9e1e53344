using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Takes templates from a file, as drafts. Entries that the firm's lists lack are created, or others stand for them.</summary>
public sealed class ImportTemplates(FidDb db)
{
    private const int MostTemplates = 100;

    /// <returns>The codes of the drafts.</returns>
    public async Task<ActResult<string[]>> DoAsync(ImportTemplatesRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (Check(request.File) is { } notOurs)
            return notOurs;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var forbidden = request.File.Templates.SelectMany((t, i) => reader.Forbidden(t.Spec, $"/file/templates/{i}/spec")).ToList();
        if (forbidden.Count > 0)
            return Refusal.Invalid(forbidden);
        var there = (await db.ListEntries.Select(e => new { e.List, e.Code }).ToListAsync(cancellation)).Select(e => (e.List, e.Code)).ToHashSet();
        var unknown = request.Instead.Select((m, i) => (m, i)).Where(m => !there.Contains((m.m.List, m.m.To))).ToList();
        if (unknown.Count > 0)
            return Refusal.Invalid([.. unknown.Select(u => new Problem($"/instead/{u.i}/to", "unknown-entry", "Choose an entry of the list."))]);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return (
                await db
                    .Changes.Where(c => c.Action == TemplateTransfer.Imported && c.ById == actor.AccountId)
                    .OrderByDescending(c => c.At)
                    .Select(c => c.Part!)
                    .FirstAsync(cancellation)
            ).Split(' ');
        var instead = request.Instead.DistinctBy(m => (m.List, m.Code)).ToDictionary(m => (m.List, m.Code), m => m.To);
        var unpacked = await new TemplateTransfer(db).UnpackAsync(request.File, instead, actor.Author("templates"), cancellation);
        if (unpacked.Answer is not { } codes)
            return Refusal.Invalid(unpacked.Problems);
        await act.CommitAsync(cancellation);
        return codes;
    }

    /// <summary>Why a file is none of ours; null where it is.</summary>
    public static Refusal? Check(TemplateExport file) =>
        file.Fid == TemplateExport.Kind
        && file.Templates is { Length: > 0 and <= MostTemplates }
        && file.Entries is not null
        && file.SharedTasks is not null
        && file.Templates.All(t => t.Spec?.Values is not null && t.Spec.Lists is not null && TemplateCode.IsOne(t.Code))
            ? null
            : Refusal.Invalid("/fid", "bad-file", "This is no file of templates from Fid.");
}

/// <param name="Instead">For entries the firm does not have, others that stand for them; those left out are created.</param>
public sealed record ImportTemplatesRequest(TemplateExport File, InsteadEntry[] Instead);

public sealed record InsteadEntry(string List, string Code, string To);
