using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.People;
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
        app.MapGet("/api/templates/updates", Runs).WhoMay(Access.Coordinates);
        app.MapPost("/api/templates/updates", Apply).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(409);
        app.MapPost("/api/templates/updates/{id:guid}/undo", Undo).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        app.MapGet("/api/templates/{code}/updates", Find).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly);
        app.MapPost("/api/templates/{code}/touches", Touches).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly).ProducesProblem(400);
    }

    private static async Task<Ok<HireUpdateResponse[]>> Find(string code, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        var found = await new TemplateUpdates(db).FindAsync(await TemplateBook.LoadAsync(db, cancellation), code, null, today, cancellation);
        return TypedResults.Ok(await DescribeAsync(found, await Reader.OfAsync(user, db, cancellation), db, cancellation));
    }

    /// <summary>What a template as it is being edited would mean for the hires under way.</summary>
    private static async Task<Results<Ok<HireUpdateResponse[]>, ProblemHttpResult>> Touches(
        string code, TemplateDraftRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(user, db, cancellation);
        if (reader.Forbidden(request.Spec) is { Count: > 0 } forbidden) return Problems.Invalid(forbidden);
        var book = await TemplateBook.LoadAsync(db, cancellation);
        var edited = new RoleTemplate { Code = code, Version = (book.Find(code)?.Version ?? 0) + 1, Spec = reader.WithUnseen(request.Spec, book.Find(code)?.Spec) };
        // Only what could be published is worked out for people.
        var review = await TemplateReview.LoadAsync(db, reader.Fields, book.With(edited), cancellation);
        if (review.Of(edited).Where(f => f.Blocks).ToList() is { Count: > 0 } wrong)
            return Problems.Invalid([.. wrong.Select(f => new Problem("/spec" + f.Pointer, f.Code, f.Message))]);
        var found = await new TemplateUpdates(db).FindAsync(book.With(edited), code, null, await clock.TodayAsync(db, cancellation), cancellation);
        return TypedResults.Ok(await DescribeAsync(found, reader, db, cancellation));
    }

    private static async Task<Ok<UpdateRunResponse[]>> Runs(FidDb db, CancellationToken cancellation) => TypedResults.Ok(
        (await db.TemplateUpdateRuns.AsNoTracking().OrderByDescending(r => r.At).Take(20).ToListAsync(cancellation))
            .Select(r => new UpdateRunResponse(r.Id, r.At, r.ByName, r.Hires.Count, r.Undone)).ToArray());

    /// <summary>Brings hires to the live versions, taking of each what was decided. All or none.</summary>
    private static async Task<Results<Ok<UpdateRunResponse>, ProblemHttpResult>> Apply(
        ApplyUpdatesRequest request, ClaimsPrincipal user, FidDb db, RecordWriter records, FirmClock clock, CancellationToken cancellation)
    {
        if (request.Hires.Length == 0) return Problems.Invalid(new Problem("/hires", "missing", "Choose the hires to update."));
        var today = await clock.TodayAsync(db, cancellation);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var ids = request.Hires.Select(h => h.Id).ToHashSet();
        foreach (var employment in await db.Hires.Where(h => ids.Contains(h.Id)).OrderBy(h => h.EmploymentId).Select(h => h.EmploymentId).ToListAsync(cancellation)) await records.LockAsync(employment, cancellation);
        var found = (await new TemplateUpdates(db).FindAsync(await TemplateBook.LoadAsync(db, cancellation), null, ids, today, cancellation)).ToDictionary(u => u.Hire.Id);
        if (!ids.All(found.ContainsKey)) return Problems.Conflict("changed-meanwhile", "Some of these hires are up to date already. Look again.");
        if (found.Values.FirstOrDefault(u => u.Trouble is not null) is { } stuck) return Problems.Conflict("cannot-resolve", stuck.Trouble!);
        var reader = await Reader.OfAsync(user, db, cancellation);
        var decided = request.Hires.Select(h => (found[h.Id], (IReadOnlySet<string>)h.Take.Intersect(found[h.Id].Facts.Select(f => f.Key).Where(f => MayTake(f, reader))).ToHashSet(StringComparer.Ordinal))).ToList();
        var run = await new TemplateUpdateWriter(db, records).ApplyAsync(decided, user.Author(clock, "templates"), today, cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new UpdateRunResponse(run.Id, run.At, run.ByName, run.Hires.Count, false));
    }

    private static async Task<Results<Ok<UndoneUpdate>, ProblemHttpResult>> Undo(
        Guid id, ClaimsPrincipal user, FidDb db, RecordWriter records, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await db.Database.ExecuteSqlAsync($"select 1 from template_update_runs where id = {id} for update", cancellation);
        if (await db.TemplateUpdateRuns.SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } run) return Problems.NotFound();
        if (run.Undone) return Problems.Conflict("undone-already", "This has been undone already.");
        var left = await new TemplateUpdateWriter(db, records).UndoAsync(run, user.Author(clock, "templates"), await clock.TodayAsync(db, cancellation), cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        var names = await PeopleNames.OfHiresAsync(db, left, (await Reader.OfAsync(user, db, cancellation)).SeesNames, cancellation);
        return TypedResults.Ok(new UndoneUpdate(run.Hires.Count - left.Count, [.. names.Values]));
    }

    // A value of the record is taken by those who may edit its field; tasks and what is issued by all who update hires.
    private static bool MayTake(string fact, Reader reader) => fact.Split('/', 2) is not ["values", var field] || reader.MayEdit(field);

    private static async Task<HireUpdateResponse[]> DescribeAsync(IReadOnlyList<HireUpdate> updates, Reader reader, FidDb db, CancellationToken cancellation)
    {
        var people = await PeopleNames.LoadAsync(db, [.. updates.Select(u => u.Hire.EmploymentId)], reader.SeesNames, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var fields = reader.Fields;
        return [.. updates.Select(u => new HireUpdateResponse(
            u.Hire.Id, people.GetValueOrDefault(u.Hire.EmploymentId, ""), u.Hire.Start, u.Hire.TemplateVersion, u.Layers, u.Trouble,
            [.. u.Facts.Where(f => MayTake(f.Key, reader)).Select(f => Describe(f, u))]))];

        MergedFactResponse Describe(MergedFact fact, HireUpdate update)
        {
            var parts = fact.Key.Split('/', 3);
            var name = parts[0] switch
            {
                "values" => null,
                TemplateLists.Tasks => update.Tasks.FirstOrDefault(t => t.Key == parts[1])?.Name ?? update.Hire.Tasks.Find(t => t.Key == parts[1])?.Name,
                var list => TemplateReview.KeyedBy.TryGetValue(list, out var keys) ? names.Of(keys, parts[1]) : null,
            };
            return new MergedFactResponse(fact.Key, parts[0], parts[1], parts.Length > 2 ? parts[2] : null, name, fact.Fate, fact.Before, fact.Mine, fact.Theirs, Shown(fact.Before), Shown(fact.Mine), Shown(fact.Theirs));

            string? Shown(JsonElement? value) => value is { } v && parts[0] == "values" && fields.ListOf(parts[1]) is { } list ? names.Joined(list, v) : null;
        }
    }
}

/// <param name="Hires">The hires, and for each the facts to take.</param>
public sealed record ApplyUpdatesRequest(DecidedUpdate[] Hires);

public sealed record DecidedUpdate(Guid Id, string[] Take);

public sealed record UpdateRunResponse(Guid Id, Instant At, string ByName, int Hires, bool Undone);

/// <param name="Left">Hires that stay as they are, because they were changed since.</param>
public sealed record UndoneUpdate(int Undone, string[] Left);

/// <summary>What newer versions mean for a hire.</summary>
/// <param name="TemplateVersion">The version of its template that it has.</param>
/// <param name="Layers">The layers it would have.</param>
/// <param name="Trouble">Why it cannot be worked out.</param>
public sealed record HireUpdateResponse(Guid Id, string Name, LocalDate Start, int TemplateVersion, string[] Layers, string? Trouble, MergedFactResponse[] Facts);

/// <param name="Fact">By which it is taken.</param>
/// <param name="Part">"values" or one of the lists.</param>
/// <param name="Key">The field or the entry.</param>
/// <param name="Property">The task's property; null for the whole entry.</param>
/// <param name="Name">How the entry is called.</param>
/// <param name="BeforeShown">How list entries in the value are called.</param>
public sealed record MergedFactResponse(
    string Fact, string Part, string Key, string? Property, string? Name, MergeFate Fate, JsonElement? Before, JsonElement? Mine, JsonElement? Theirs,
    string? BeforeShown, string? MineShown, string? TheirsShown);
