using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Fields;

/// <summary>Who lacks a field, so that it can be filled down a grid.</summary>
internal static class CoverageEndpoints
{
    private const int MostShown = 500;

    public static void MapCoverage(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/fields/{key}/coverage", Show).WhoMay(Actions.Edit, Things.Fields).RequireRateLimiting(RateLimits.Costly).ProducesProblem(404);
        app.MapGapSheet();
    }

    private static async Task<Results<Ok<CoverageResponse>, ProblemHttpResult>> Show(
        string key,
        string? department,
        string? site,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (await LackingAsync(key, department, site, actor, db, cancellation) is not { } gap)
            return Problems.NotFound();
        return TypedResults.Ok(
            new CoverageResponse(RecordReader.Bare(gap.Field, gap.Access), gap.Of, gap.Filled, gap.People.Length, [.. gap.People.Take(MostShown)])
        );
    }

    /// <summary>Who lacks a field, of those to whom it is shown; null where there is no such field for the user.</summary>
    internal static async Task<Gap?> LackingAsync(string key, string? department, string? site, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var fields = reader.Fields;
        // Nobody filters by what they may not see, nor learns from who lacks the field what decides that it is shown.
        if (fields.Set.Find(key) is not { } field || !reader.Sees(key))
            return null;
        if ((department is not null && !reader.Sees("department")) || (site is not null && !reader.Sees("site")))
            return null;
        var today = actor.Today;
        // Only what says who lacks it: the field, and what decides whether it is shown.
        string[] deciding = field.ShowWhen is null ? [key] : [key, .. fields.Set.ReadToShow(key)];
        var active = (await ActiveRecords.LoadAsync(db, today, cancellation, only: await reader.ReadableAsync(db, cancellation), fields: deciding)).Records;
        // Somebody to whom the field is not shown does not lack it.
        var counted = active
            .AsParallel()
            .WithCancellation(cancellation)
            .Select(r => (r.Key, Shown: IsShown(reader, key, r.Value), Has: r.Value.Values.ContainsKey(key)))
            .ToList();
        var lacking = counted.Where(c => c.Shown && !c.Has).Select(c => c.Key).ToArray();
        var names = await ListNames.EntriesAsync(db, cancellation, reader.SeesNames);
        var seen = new VisibleFacts(reader, names);
        var rows = await (
            from record in db.CurrentRecords.AsNoTracking()
            join employment in db.Employments on record.EmploymentId equals employment.Id
            where
                lacking.Contains(record.EmploymentId)
                && (department == null || record.DepartmentCode == department)
                && (site == null || record.SiteCode == site)
            orderby reader.SeesNames ? record.FamilyName : "", reader.SeesNames ? record.GivenName : "", employment.Number
            select new { record, employment.Number }
        ).ToListAsync(cancellation);
        return new Gap(
            field,
            reader.Everybody.On(key),
            counted.Count(c => c.Shown),
            counted.Count(c => c.Shown && c.Has),
            [
                .. rows.Select(r => new CoverageRow(
                    r.record.EmploymentId,
                    Platform.Versions.Tag(r.record.Version),
                    r.Number,
                    reader.NameOf(r.record, r.Number),
                    seen.Job(r.record.JobCode),
                    seen.Department(r.record.DepartmentCode),
                    seen.Site(r.record.SiteCode)
                )),
            ]
        );
    }

    private static bool IsShown(Reader reader, string key, ActiveRecord record) =>
        reader.Fields.Set.Find(key)!.ShowWhen is null
        || RecordEvaluation
            .Of(reader.Fields.Set, new RecordQuestion(record.Values, [.. record.Values.Keys], [], reader.Everybody, null, record.AsOf, RecordQuestion.NoLists))
            .Shown.Contains(key);
}

/// <summary>Who lacks a field.</summary>
/// <param name="Of">Active people to whom it is shown.</param>
/// <param name="Filled">How many of them have it.</param>
/// <param name="People">Who lacks it, with the filter, by family name.</param>
internal sealed record Gap(FieldDefinition Field, FieldAccess Access, int Of, int Filled, CoverageRow[] People);

/// <summary>How complete a field is.</summary>
/// <param name="Of">Active people to whom it is shown.</param>
/// <param name="Filled">How many of them have it.</param>
/// <param name="Lacking">How many lack it, with the filter.</param>
/// <param name="People">The first 500 of those, by family name.</param>
public sealed record CoverageResponse(FieldResponse Field, int Of, int Filled, int Lacking, CoverageRow[] People);

public sealed record CoverageRow(Guid EmploymentId, string Version, string Number, string Name, string? Job, string? Department, string? Site);
