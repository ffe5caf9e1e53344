using System.Text;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Admin;

/// <summary>Roles and groups: what each gives, who holds it, and who may do what because of which.</summary>
internal static class RolesEndpoints
{
    public static void MapRoles(this IEndpointRouteBuilder app)
    {
        var rights = app.MapGroup("/api/rights");
        rights.MapGet("", Show).WhoMay(Actions.See, Things.Role);
        rights.MapGet("/schema.json", Schema).WhoMay(Access.Anybody);
        rights.MapGet("/versions", Versions).WhoMay(Actions.See, Things.Role);
        rights.MapGet("/versions/{version:int}", Version).WhoMay(Actions.See, Things.Role).ProducesProblem(404);
        rights.MapGet("/explained", Explain).WhoMay(Actions.See, Things.Role).ProducesProblem(400).ProducesProblem(404);
        rights.MapRightsDraft();
    }

    private static async Task<Ok<RolesResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var set = fields.Roles;
        var live = await db.RightsVersions.AsNoTracking().OrderByDescending(v => v.Version).FirstOrDefaultAsync(cancellation);
        var draft = await db.RightsDrafts.AsNoTracking().SingleOrDefaultAsync(cancellation);
        var today = actor.Today;
        var holders = await RoleHolders.CountAsync(db, set, today, cancellation);
        var members = await db
            .Database.SqlQuery<Member>(
                $"""
                select g as "group", count(*)::int as people from records_now r join employments e on e.id = r.employment_id, unnest(r.groups) g
                where e."end" is null or e."end" >= {today} group by 1
                """
            )
            .ToDictionaryAsync(m => m.Group, m => m.People, cancellation);
        return TypedResults.Ok(
            new RolesResponse(
                live?.Version ?? 0,
                Json(live?.Configuration),
                draft is null ? null : RightsDraftResponse.Of(draft),
                [
                    .. set.Roles.Select(r => new RoleResponse(
                        r.Id,
                        Labels.Of(r.Labels),
                        ShippedRoles.Has(r.Id),
                        [.. r.FieldReaches.Select(ReachResponse.Of)],
                        [.. r.Rights.Select(RightResponse.Of)],
                        holders.GetValueOrDefault(r.Id)
                    )),
                ],
                [.. set.Groups.Select(g => new GroupResponse(g.Id, Labels.Of(g.Labels), g.When, [.. g.Roles], members.GetValueOrDefault(g.Id)))],
                [.. Things.Rights.Select(r => new RightLabel(r.Action, r.Thing, r.OfPeople, r.Label))],
                [
                    .. fields.Sections.Select(s => new RoleSection(
                        s.Key,
                        Labels.Of(s.Labels),
                        [
                            .. fields
                                .Set.Fields.Where(f => f.Section == s.Key)
                                .Select(f => new RoleField(
                                    f.Key,
                                    Labels.Of(f.Labels),
                                    f.Type,
                                    f.Access.Where(a => a.Value != FieldAccess.None).ToDictionary(a => a.Key, a => f.AccessOf(a.Key)),
                                    f.List,
                                    [.. (f.Options ?? []).Select(o => new RoleFieldOption(o.Value, new Labels(o.Label("en"), o.Label("de"))))]
                                )),
                        ]
                    )),
                ],
                [.. Core.Formulas.RecordFormula.Functions]
            )
        );
    }

    private static FileStreamHttpResult Schema() =>
        TypedResults.Stream(typeof(RolesEndpoints).Assembly.GetManifestResourceStream("rights-configuration.schema.json")!, "application/schema+json");

    private static async Task<Ok<RightsVersionResponse[]>> Versions(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            await db
                .RightsVersions.AsNoTracking()
                .OrderByDescending(v => v.Version)
                .Select(v => new RightsVersionResponse(v.Version, v.At, v.ByName, v.AskedByName, v.Why))
                .ToArrayAsync(cancellation)
        );

    /// <summary>The roles and groups of a version, as one JSON document.</summary>
    private static async Task<Results<Ok<JsonObject>, ProblemHttpResult>> Version(int version, FidDb db, CancellationToken cancellation) =>
        version == 0 ? TypedResults.Ok(Json(null))
        : await db.RightsVersions.Where(v => v.Version == version).Select(v => v.Configuration).SingleOrDefaultAsync(cancellation) is { } text
            ? TypedResults.Ok(Json(text))
        : Problems.NotFound();

    /// <summary>Who may see a field or do something with a thing, and because of which rights: of one record, or of any.</summary>
    /// <param name="person">The employment whose record it is; left out, any.</param>
    /// <param name="field">The key of a field; left out, a thing is asked for.</param>
    /// <param name="action">What would be done; left out, seen.</param>
    private static async Task<Results<Ok<RightsExplained>, ProblemHttpResult>> Explain(
        Guid? person,
        string? field,
        string? action,
        string? thing,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var record = person is { } id ? await db.CurrentRecords.AsNoTracking().SingleOrDefaultAsync(r => r.EmploymentId == id, cancellation) : null;
        // Of somebody out of reach it would tell whom they report to, and where they are.
        if (person is not null && (record is null || !reader.MayOpen(record)))
            return Problems.NotFound();
        var explanation = await RightsExplanation.LoadAsync(db, reader.Fields.Roles, record, actor.Today, cancellation);
        IReadOnlyList<Explained> people;
        if (field is not null)
        {
            if (reader.Fields.Set.Find(field) is not { } known || action is not (null or Right.See or Right.Edit))
                return Problems.Invalid(new Core.Problem("/field", "unknown-field", "Choose a field, and whether it is seen or edited."));
            people = explanation.Of(known, action == Right.Edit ? FieldAccess.Edit : FieldAccess.View);
        }
        else if (thing is not null && Things.Find(action ?? Right.See, thing) is { } right)
            people = explanation.Of(right.Action, right.Thing);
        else
            return Problems.Invalid(new Core.Problem("/thing", "unknown-right", "Choose a field, or something that can be done."));
        return TypedResults.Ok(
            new RightsExplained([
                .. people.Select(p => new ExplainedHolder(
                    p.Account,
                    p.Name,
                    [.. p.Because.Select(b => new ExplainedRight(b.Right.Role, RightResponse.Of(b.Right.Right), b.Rule))]
                )),
            ])
        );
    }

    private static JsonObject Json(string? configuration) =>
        JsonNode.Parse(configuration ?? Encoding.UTF8.GetString(RightsConfiguration.Empty.Write()))!.AsObject();

    private sealed record Member(string Group, int People);
}
