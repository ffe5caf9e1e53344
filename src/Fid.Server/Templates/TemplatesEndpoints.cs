using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>Role templates and add-ons: which there are, what they say, what they were.</summary>
internal static class TemplatesEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/templates", List).WhoMay(Actions.See, Things.Template);
        app.MapGet("/api/templates/editing", Editing).WhoMay(Actions.Edit, Things.Template);
        app.MapGet("/api/templates/{code}", Show).WhoMay(Actions.See, Things.Template).ProducesProblem(404);
        app.MapGet("/api/templates/{code}/versions", Versions).WhoMay(Actions.See, Things.Template);
        app.MapGet("/api/templates/{code}/compare", Compare).WhoMay(Actions.See, Things.Template).ProducesProblem(404);
        app.MapPut("/api/templates/{code}/retired", Retire).WhoMay(Actions.Edit, Things.Template).ProducesProblem(404).ProducesProblem(409);
        app.MapTemplateDrafts();
        app.MapTemplateExamples();
        app.MapTemplateUpdates();
        app.MapSharedTasks();
        app.MapTemplateFiles();
    }

    private static async Task<Ok<TemplateRow[]>> List(FidDb db, CancellationToken cancellation)
    {
        var book = await TemplateSet.LoadAsync(db, cancellation);
        var drafts = await db.TemplateDrafts.AsNoTracking().ToDictionaryAsync(d => d.Code, cancellation);
        var changed = await db
            .TemplateVersions.GroupBy(v => v.Code)
            .Select(g =>
                g.OrderByDescending(v => v.Version)
                    .Select(v => new
                    {
                        v.Code,
                        v.At,
                        v.ByName,
                    })
                    .First()
            )
            .ToDictionaryAsync(v => v.Code, cancellation);
        var opened = await OpenedAsync(db, cancellation);
        var rows = book.All.Select(t => Row(t, changed.GetValueOrDefault(t.Code)?.At, changed.GetValueOrDefault(t.Code)?.ByName, drafts.ContainsKey(t.Code)));
        var begun = drafts
            .Values.Where(d => book.Find(d.Code) is null)
            .Select(d =>
                Row(
                    new RoleTemplate
                    {
                        Code = d.Code,
                        Version = 0,
                        Spec = d.Spec,
                    },
                    d.At,
                    d.ByName,
                    hasDraft: true
                )
            );
        return TypedResults.Ok(
            rows.Concat(begun).OrderBy(r => r.IsAddOn).ThenBy(r => r.IsAddOn ? r.Order : 0).ThenBy(r => r.Name, StringComparer.Ordinal).ToArray()
        );

        TemplateRow Row(RoleTemplate t, Instant? at, string? by, bool hasDraft) =>
            new(
                t.Code,
                t.Name,
                t.Version,
                t.IsAddOn,
                t.Version > 0 && t.OpensFor(t.Spec.Occasion),
                t.Spec.Occasion,
                t.Retired,
                t.Spec.BuildsOn,
                t.Spec.BuildsOn is { } on ? book.Find(on)?.Name : null,
                t.Spec.When,
                t.Spec.Order,
                opened.GetValueOrDefault(t.Code)?.All ?? 0,
                opened.GetValueOrDefault(t.Code)?.UnderWay ?? 0,
                at,
                by,
                hasDraft
            );
    }

    /// <summary>What the editor offers.</summary>
    private static async Task<Ok<TemplateEditing>> Editing(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var stages = (await db.Stages.AsNoTracking().OrderBy(s => s.Position).ToListAsync(cancellation))
            .Select(s => new TemplateStage(s.Key, s.Called, s.Occasion))
            .ToArray();
        return TypedResults.Ok(
            new TemplateEditing(
                [
                    .. reader
                        .Fields.Set.FieldsAndColumns.Where(f => reader.Sees(f.Key))
                        .Select(f => new TemplateField(
                            MaySet(reader, f),
                            RecordReader.Bare(f, FieldAccess.Edit),
                            f.IsColumn ? reader.Fields.Set.AboutColumnOf(f.Key) : null
                        )),
                ],
                [.. Core.Formulas.RecordFormula.Functions],
                stages
            )
        );
    }

    // What rows are about is said by naming the row; the rest of it by its columns.
    private static bool MaySet(Reader reader, FieldDefinition field) =>
        TemplateFields.MaySet(field)
        && reader.MayEdit(field.Key)
        && (!field.IsColumn || (reader.Fields.Set.AboutColumnOf(field.Key) is { } about && about != field.Key));

    private static async Task<Results<Ok<TemplateResponse>, ProblemHttpResult>> Show(string code, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var book = await TemplateSet.LoadAsync(db, cancellation);
        var draft = await db.TemplateDrafts.AsNoTracking().SingleOrDefaultAsync(d => d.Code == code, cancellation);
        var live = book.Find(code);
        if (live is null && draft is null)
            return Problems.NotFound();
        var opened = (await OpenedAsync(db, cancellation)).GetValueOrDefault(code);
        return TypedResults.Ok(
            new TemplateResponse(
                code,
                live?.Version ?? 0,
                live?.Retired ?? false,
                live is null ? null : reader.Seen(live.Spec),
                draft is null ? null : TemplateDraftResponse.Of(draft, reader),
                opened?.All ?? 0,
                opened?.UnderWay ?? 0
            )
        );
    }

    private static async Task<Ok<TemplateVersionResponse[]>> Versions(string code, FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            await db
                .TemplateVersions.AsNoTracking()
                .Where(v => v.Code == code)
                .OrderByDescending(v => v.Version)
                .Select(v => new TemplateVersionResponse(v.Version, v.At, v.ByName, v.Why))
                .ToArrayAsync(cancellation)
        );

    /// <summary>What differs between two versions; left out, "to" is the draft.</summary>
    private static async Task<Results<Ok<TemplateComparison>, ProblemHttpResult>> Compare(
        string code,
        int from,
        int? to,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var before = await db.TemplateVersions.AsNoTracking().SingleOrDefaultAsync(v => v.Code == code && v.Version == from, cancellation);
        var after = to is { } version
            ? (await db.TemplateVersions.AsNoTracking().SingleOrDefaultAsync(v => v.Code == code && v.Version == version, cancellation))?.Spec
            : (await db.TemplateDrafts.AsNoTracking().SingleOrDefaultAsync(d => d.Code == code, cancellation))?.Spec;
        if (before is null || after is null)
            return Problems.NotFound();
        return TypedResults.Ok(new TemplateComparison(reader.Seen(before.Spec), [.. TemplateDifference.Of(reader.Seen(before.Spec), reader.Seen(after))]));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Retire(
        string code,
        TemplateRetirement request,
        Actor actor,
        RetireTemplate retire,
        CancellationToken cancellation
    ) => (await retire.DoAsync(new RetireTemplateRequest(code, request.Retired), actor, cancellation)).Answer();

    // How many hires each template or add-on was a layer of.
    private static Task<Dictionary<string, Opened>> OpenedAsync(FidDb db, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<Opened>(
                $"""
                select split_part(split_part(layer, ':', 2), '@', 1) as code, count(*)::int as "all", (count(*) filter (where closed is null))::int as under_way
                from (select layers, closed from hires union all select layers, null from run_checklists) opened, unnest(layers) layer group by 1
                """
            )
            .ToDictionaryAsync(o => o.Code, cancellation);

    private sealed record Opened(string Code, int All, int UnderWay);
}

/// <param name="Version">The live version; 0 for one that was never published.</param>
/// <param name="Opens">Whether checklists can be opened from it.</param>
/// <param name="Occasion">For what.</param>
/// <param name="BuildsOn">The code of the template it builds on.</param>
/// <param name="When">An add-on's condition; null where it applies to everybody.</param>
/// <param name="Opened">How many hires had it among their layers.</param>
/// <param name="UnderWay">How many of them are under way.</param>
public sealed record TemplateRow(
    string Code,
    string Name,
    int Version,
    bool IsAddOn,
    bool Opens,
    Occasion Occasion,
    bool Retired,
    string? BuildsOn,
    string? BuildsOnName,
    string? When,
    int Order,
    int Opened,
    int UnderWay,
    Instant? ChangedAt,
    string? ChangedBy,
    bool HasDraft
);

public sealed record TemplateEditing(TemplateField[] Fields, string[] Functions, TemplateStage[] Stages);

/// <param name="Occasion">Whose checklists go through it.</param>
public sealed record TemplateStage(string Key, string Name, Occasion Occasion);

/// <param name="MaySet">Whether a template may set it; formulas may read any.</param>
/// <param name="RowKey">Of a column, the key of the column that says what a row is about: a template names its row by that.</param>
public sealed record TemplateField(bool MaySet, FieldResponse Field, string? RowKey);

/// <summary>A template: what is live, and the draft of what is to come.</summary>
public sealed record TemplateResponse(string Code, int Version, bool Retired, TemplateSpec? Live, TemplateDraftResponse? Draft, int Opened, int UnderWay);

public sealed record TemplateVersionResponse(int Version, Instant At, string ByName, string? Why);

/// <param name="Before">What the earlier version says as a whole.</param>
public sealed record TemplateComparison(TemplateSpec Before, TemplateDifference[] Differences);

/// <param name="Retired">Whether it is to be retired, or in use again.</param>
public sealed record TemplateRetirement(bool Retired);
