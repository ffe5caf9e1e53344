using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>Hires under way on older versions of a template: what a newer one means for each, and bringing them to it.</summary>
internal static class TemplateUpdatesEndpoints
{
    public static void MapTemplateUpdates(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/templates/updates", Runs).WhoMay(Actions.Edit, Things.Template);
        app.MapPost("/api/templates/updates", Apply).WhoMay(Actions.Edit, Things.Template).ProducesProblem(400).ProducesProblem(409);
        app.MapPost("/api/templates/updates/{id:guid}/undo", Undo).WhoMay(Actions.Edit, Things.Template).ProducesProblem(404).ProducesProblem(409);
        app.MapGet("/api/templates/{code}/updates", Find).WhoMay(Actions.Edit, Things.Template).RequireRateLimiting(RateLimits.Costly);
        app.MapPost("/api/templates/{code}/touches", Touches)
            .WhoMay(Actions.Edit, Things.Template)
            .OnlyReads()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400);
    }

    private static async Task<Ok<HireUpdateResponse[]>> Find(string code, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var today = actor.Today;
        var found = await new TemplateUpdates(db).FindAsync(await TemplateSet.LoadAsync(db, cancellation), code, null, today, cancellation);
        return TypedResults.Ok(await DescribeAsync(found, actor, await Reader.OfAsync(actor, db, cancellation), db, cancellation));
    }

    /// <summary>What a template as it is being edited would mean for the hires under way.</summary>
    private static async Task<Results<Ok<HireUpdateResponse[]>, ProblemHttpResult>> Touches(
        string code,
        TemplateDraftRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.Forbidden(request.Spec) is { Count: > 0 } forbidden)
            return Problems.Invalid(forbidden);
        var book = await TemplateSet.LoadAsync(db, cancellation);
        var edited = new RoleTemplate
        {
            Code = code,
            Version = (book.Find(code)?.Version ?? 0) + 1,
            Spec = reader.WithUnseen(request.Spec, book.Find(code)?.Spec),
        };
        // Only what could be published is worked out for people.
        var review = await TemplateReview.LoadAsync(db, reader.Fields, book.With(edited), cancellation);
        if (review.Of(edited).Where(f => f.Blocks).ToList() is { Count: > 0 } wrong)
            return Problems.Invalid([.. wrong.Select(f => new Problem("/spec" + f.Pointer, f.Code, f.Message))]);
        var found = await new TemplateUpdates(db).FindAsync(book.With(edited), code, null, actor.Today, cancellation);
        return TypedResults.Ok(await DescribeAsync(found, actor, reader, db, cancellation));
    }

    private static async Task<Ok<UpdateRunResponse[]>> Runs(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            (await db.TemplateUpdateRuns.AsNoTracking().OrderByDescending(r => r.At).Take(20).ToListAsync(cancellation))
                .Select(r => new UpdateRunResponse(r.Id, r.At, r.ByName, r.Hires.Count, r.Undone))
                .ToArray()
        );

    private static async Task<Results<Ok<UpdateRunResponse>, ProblemHttpResult>> Apply(
        ApplyUpdatesRequest request,
        Actor actor,
        ApplyTemplateUpdates apply,
        CancellationToken cancellation
    ) =>
        (await apply.DoAsync(request, actor, cancellation)).IsDone(out var run, out var refusal)
            ? TypedResults.Ok(new UpdateRunResponse(run.Id, run.At, run.ByName, run.Hires.Count, false))
            : Problems.Of(refusal);

    private static async Task<Results<Ok<UndoneUpdate>, ProblemHttpResult>> Undo(
        Guid id,
        Actor actor,
        FidDb db,
        UndoTemplateUpdates undo,
        CancellationToken cancellation
    )
    {
        if (!(await undo.DoAsync(new UndoTemplateUpdatesRequest(id), actor, cancellation)).IsDone(out var undone, out var refusal))
            return Problems.Of(refusal);
        var names = await PeopleNames.OfHiresAsync(db, undone.Left, (await Reader.OfAsync(actor, db, cancellation)).SeesNames, cancellation);
        return TypedResults.Ok(new UndoneUpdate(undone.Undone, [.. names.Values]));
    }

    private static async Task<HireUpdateResponse[]> DescribeAsync(
        IReadOnlyList<HireUpdate> found,
        Actor actor,
        Reader reader,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var seen = await ReachedHires.AmongAsync(actor, db, Actions.See, [.. found.Select(u => u.Hire.Id)], cancellation);
        var updates = found.Where(u => seen.Contains(u.Hire.Id)).ToList();
        var people = await PeopleNames.LoadAsync(db, [.. updates.Select(u => u.Hire.EmploymentId)], reader.SeesNames, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var fields = reader.Fields;
        return
        [
            .. updates.Select(u => new HireUpdateResponse(
                u.Hire.Id,
                people.GetValueOrDefault(u.Hire.EmploymentId, ""),
                u.Hire.Start,
                u.Hire.TemplateVersion,
                u.Layers,
                u.Trouble,
                [.. u.Facts.Where(f => ApplyTemplateUpdates.MayTake(f, reader)).Select(f => Describe(f, u))]
            )),
        ];

        MergedFactResponse Describe(MergedFact fact, HireUpdate update)
        {
            var parts = fact.Key.Split('/', 3);
            var name = parts[0] switch
            {
                "values" => null,
                TemplateLists.Tasks => update.Tasks.FirstOrDefault(t => t.Key == parts[1])?.Name ?? update.Hire.Tasks.Find(t => t.Key == parts[1])?.Name,
                var list => TemplateReview.KeyedBy.TryGetValue(list, out var keys) ? names.Of(keys, parts[1]) : null,
            };
            return new MergedFactResponse(
                fact.Key,
                parts[0],
                parts[1],
                parts.Length > 2 ? parts[2] : null,
                name,
                fact.Fate,
                fact.Before,
                fact.Mine,
                fact.Theirs,
                Shown(fact.Before),
                Shown(fact.Mine),
                Shown(fact.Theirs)
            );

            string? Shown(JsonElement? value) => value is { } v && parts[0] == "values" && fields.ListOf(parts[1]) is { } list ? names.Joined(list, v) : null;
        }
    }
}

public sealed record UpdateRunResponse(Guid Id, Instant At, string ByName, int Hires, bool Undone);

/// <param name="Left">Hires that stay as they are, because they were changed since.</param>
public sealed record UndoneUpdate(int Undone, string[] Left);

/// <summary>What newer versions mean for a hire.</summary>
/// <param name="TemplateVersion">The version of its template that it has.</param>
/// <param name="Layers">The layers it would have.</param>
/// <param name="Trouble">Why it cannot be worked out.</param>
public sealed record HireUpdateResponse(
    Guid Id,
    string Name,
    LocalDate Start,
    int TemplateVersion,
    string[] Layers,
    string? Trouble,
    MergedFactResponse[] Facts
);

/// <param name="Fact">By which it is taken.</param>
/// <param name="Part">"values" or one of the lists.</param>
/// <param name="Key">The field or the entry.</param>
/// <param name="Property">The task's property; null for the whole entry.</param>
/// <param name="Name">How the entry is called.</param>
/// <param name="BeforeShown">How list entries in the value are called.</param>
public sealed record MergedFactResponse(
    string Fact,
    string Part,
    string Key,
    string? Property,
    string? Name,
    MergeFate Fate,
    JsonElement? Before,
    JsonElement? Mine,
    JsonElement? Theirs,
    string? BeforeShown,
    string? MineShown,
    string? TheirsShown
);
