using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.FieldDrafts;
using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Fields;

/// <summary>What a record holds: the live configuration, its versions, and how complete each field is.</summary>
internal static class FieldsEndpoints
{
    public static void MapFields(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/fields", Show).WhoMay(Actions.Edit, Things.Fields);
        app.MapGet("/api/fields/filled", Filled).WhoMay(Actions.Edit, Things.Fields);
        app.MapGet("/api/fields/labels", ShowLabels).WhoMay(Access.SignedIn);
        app.MapGet("/api/fields/schema.json", Schema).WhoMay(Access.Anybody);
        app.MapGet("/api/fields/versions", Versions).WhoMay(Actions.Edit, Things.Fields);
        app.MapGet("/api/fields/versions/{version:int}", Version).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(404);
        app.MapGet("/api/fields/compare", Compare).WhoMay(Actions.Edit, Things.Fields).ProducesProblem(404);
        app.MapDrafts();
        app.MapCoverage();
    }

    private static async Task<Ok<FieldsResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var publishing = new FieldPublishing(db);
        var version = await publishing.LiveVersionAsync(cancellation);
        var live = (await publishing.VersionAsync(version, cancellation))!;
        var draft = await db.FieldDrafts.AsNoTracking().SingleOrDefaultAsync(cancellation);
        var stages = (await db.Stages.AsNoTracking().Where(s => s.Occasion == Occasion.Arrival).OrderBy(s => s.Position).ToListAsync(cancellation))
            .Select(s => new FieldStage(s.Key, s.Called))
            .ToArray();
        var templates = (await db.RoleTemplates.AsNoTracking().Where(t => !t.Retired).ToListAsync(cancellation))
            .SelectMany(t => t.Spec.Values.Keys.Select(key => (key, t.Name)))
            .GroupBy(t => t.key)
            .ToDictionary(g => g.Key, g => g.Select(t => t.Name).ToArray());
        return TypedResults.Ok(
            new FieldsResponse(
                version,
                Json(live),
                draft is null ? null : DraftResponse.Of(draft),
                stages,
                [.. reader.Fields.Roles.Roles.Select(r => r.Id)],
                reader.Fields.Roles.Roles.ToDictionary(r => r.Id, r => new Labels(r.Label("en"), r.Label("de"))),
                [.. ShippedLists.All.Select(l => l.Key)],
                [.. Core.Fields.Shipped.ShippedFields.All.Select(f => f.Key)],
                [.. Core.Formulas.RecordFormula.Functions],
                templates.Where(t => reader.Sees(t.Key)).ToDictionary()
            )
        );
    }

    /// <summary>How many people have each field filled that the reader may see. Counting takes longer than all else about fields.</summary>
    private static async Task<Ok<FieldsFilled>> Filled(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (active, filled) = await FieldCoverage.CountAsync(db, actor.Today, await reader.ReadableAsync(db, cancellation), cancellation);
        return TypedResults.Ok(new FieldsFilled(active, filled.Where(f => reader.Sees(f.Key)).ToDictionary()));
    }

    /// <summary>The labels of the fields the reader may see.</summary>
    private static async Task<Ok<Dictionary<string, Labels>>> ShowLabels(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        return TypedResults.Ok(reader.Fields.Set.FieldsAndColumns.Where(reader.SeesOfAnybody).ToDictionary(f => f.Key, f => Labels.Of(f.Labels)));
    }

    private static FileStreamHttpResult Schema() =>
        TypedResults.Stream(typeof(FieldsEndpoints).Assembly.GetManifestResourceStream("field-configuration.schema.json")!, "application/schema+json");

    private static async Task<Ok<FieldVersionResponse[]>> Versions(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            await db
                .FieldVersions.AsNoTracking()
                .OrderByDescending(v => v.Version)
                .Select(v => new FieldVersionResponse(v.Version, v.At, v.ByName, v.Why))
                .ToArrayAsync(cancellation)
        );

    private static async Task<Results<Ok<JsonObject>, ProblemHttpResult>> Version(int version, FidDb db, CancellationToken cancellation) =>
        await new FieldPublishing(db).VersionAsync(version, cancellation) is { } configuration ? TypedResults.Ok(Json(configuration)) : Problems.NotFound();

    private static async Task<Results<Ok<FieldDifference[]>, ProblemHttpResult>> Compare(int from, int to, FidDb db, CancellationToken cancellation)
    {
        var publishing = new FieldPublishing(db);
        return await publishing.VersionAsync(from, cancellation) is { } before && await publishing.VersionAsync(to, cancellation) is { } after
            ? TypedResults.Ok(ConfigurationDifference.Of(before, after).ToArray())
            : Problems.NotFound();
    }

    internal static JsonObject Json(FieldConfiguration configuration) => JsonNode.Parse(configuration.Write())!.AsObject();
}

/// <summary>What a record holds.</summary>
/// <param name="Version">The live version; 0 for what ships.</param>
/// <param name="Configuration">The live configuration, as its JSON Schema has it.</param>
/// <param name="Draft">The draft of the next, if there is one.</param>
/// <param name="Shipped">Keys of the fields that ship and cannot be taken away.</param>
/// <param name="Functions">The functions formulas may call.</param>
/// <param name="Roles">The ids of the roles by which a field says who sees and who edits it.</param>
/// <param name="RoleLabels">What each of them is called.</param>
/// <param name="Templates">For each field, the role templates that set it.</param>
public sealed record FieldsResponse(
    int Version,
    JsonObject Configuration,
    DraftResponse? Draft,
    FieldStage[] Stages,
    string[] Roles,
    Dictionary<string, Labels> RoleLabels,
    string[] Lists,
    string[] Shipped,
    string[] Functions,
    Dictionary<string, string[]> Templates
);

/// <param name="Active">How many people work here or will.</param>
/// <param name="Filled">For each field, how many of them have a value.</param>
public sealed record FieldsFilled(int Active, Dictionary<string, int> Filled);

public sealed record FieldStage(string Key, string Name);

public sealed record FieldVersionResponse(int Version, Instant At, string ByName, string? Why);
