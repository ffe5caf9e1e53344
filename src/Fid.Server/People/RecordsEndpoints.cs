using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.People;
using Fid.Server.Hires;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Reading and saving records. What of one somebody may see and change is said field by field.</summary>
internal static class RecordsEndpoints
{
    public static void MapRecords(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/records/{id:guid}", Show).WhoMay(Access.SeesArrivals).ProducesProblem(404);
        app.MapPut("/api/records/{id:guid}", Save).WhoMay(Access.SeesArrivals)
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
        app.MapPost("/api/records/{id:guid}/readings", Readings.Read).WhoMay(Access.SeesArrivals).ProducesProblem(404);
    }

    private static async Task<Results<Ok<RecordResponse>, ProblemHttpResult>> Show(
        Guid id, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        if (await RecordReader.DescribeAsync(db, id, user, await clock.TodayAsync(db, cancellation), cancellation) is not { } record) return Problems.NotFound();
        http.Response.Headers.ETag = record.Version;
        return TypedResults.Ok(record);
    }

    private static async Task<Results<Ok<RecordResponse>, ProblemHttpResult>> Save(
        Guid id, SaveRecordRequest request, ClaimsPrincipal user, FidDb db, RecordWriter writer, SensitiveValues sensitive, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await writer.LockAsync(id, cancellation);
        if (await RecordAccess.FindAsync(user, db, id, tracked: true, cancellation) is not var (employment, record)) return Problems.NotFound();
        var today = await clock.TodayAsync(db, cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var roles = ShownRecord.RolesOf(user);
        await HoldUniqueAsync(db, fields, request.Changes.Keys, cancellation);
        var entered = await EnteredValues.CheckAsync(db, sensitive, fields, request.Changes, roles, employment, cancellation);
        var problems = entered.Problems.ConvertAll(p => p with { Path = "/changes" + p.Path });
        problems.AddRange(CheckTogether(entered, request, employment));
        if (problems.Count > 0) return Problems.Invalid(problems);
        if (Versions.Seen(http.Request) is not { } seen) return Problems.VersionNeeded();
        if (record.Version != seen) return Problems.Stale((await RecordReader.DescribeAsync(db, id, user, today, cancellation))!);

        var (ruled, clash) = await FollowRulesAsync(db, fields, employment, entered, today, cancellation);
        if (clash.Count > 0) return Problems.Invalid(clash);
        await writer.HoldEntriesAsync(entered.Values.Select(v => (v.Key, v.Value)), cancellation);
        var change = user.Author(clock, "record").Change(request.From is null ? "record.fixed" : "record.changed", employment.Id, why: Reason.Clean(request.Why));
        db.Changes.Add(change);
        var edits = entered.Values.Select(v => new FieldEdit(v.Key, v.Value, Fid.Core.Templates.Layer.Typed, request.From)).Concat(ruled.Select(r => r with { From = request.From })).ToList();
        await writer.EditAsync(employment, record, edits, change, today, cancellation);
        try
        {
            await db.SaveChangesAsync(cancellation);
            await transaction.CommitAsync(cancellation);
        }
        catch (DbUpdateConcurrencyException)
        {
            // Saved by somebody else between our reading and our writing.
            db.ChangeTracker.Clear();
            return Problems.Stale((await RecordReader.DescribeAsync(db, id, user, today, cancellation))!);
        }
        Versions.Show(http.Response, record.Version);
        // Somebody may save what takes the record out of their own sight.
        return await RecordReader.DescribeAsync(db, id, user, today, cancellation) is { } saved ? TypedResults.Ok(saved) : Problems.NotFound();
    }

    // What the rules of the changed fields set in others; and whether what was entered is in the options left by the parent field.
    private static async Task<(List<FieldEdit> Ruled, List<Problem> Clash)> FollowRulesAsync(
        FidDb db, LiveFields fields, Employment employment, Entered entered, LocalDate today, CancellationToken cancellation)
    {
        var values = (await RecordReader.ValuesAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value);
        foreach (var (key, value) in entered.Values)
        {
            if (value is { } v) values[key] = v;
            else values.Remove(key);
        }
        var changed = fields.Set.Fields.Select(f => f.Key).Where(entered.Values.ContainsKey).ToList();
        var evaluated = await ShownRecord.EvaluateAsync(db, fields, values, null, [.. entered.Values.Keys], changed, null, today, cancellation);
        var ruled = evaluated.SetBy.Where(s => s.Value.StartsWith("rule:", StringComparison.Ordinal)).Select(s => new FieldEdit(s.Key, evaluated.Values[s.Key], s.Value, null)).ToList();
        ruled.AddRange(evaluated.Emptied.Where(values.ContainsKey).Select(key => new FieldEdit(key, null, "rule", null)));
        var clash = evaluated.Errors.Where(e => entered.Values.ContainsKey(e.Field) && e.Misfit is Misfit.Within or Misfit.Option)
            .Select(e => new Problem($"/changes/{e.Field}", "not-offered", e.Misfit == Misfit.Within
                ? $"This cannot be chosen with this {fields.Set.Find(fields.Set.Find(e.Field)!.Parent!)!.Label("en")}. Choose another."
                : "This can no longer be chosen. Choose another.")).ToList();
        return (ruled, clash);
    }

    // Two who enter the same value into a unique field at once come one after the other.
    internal static async Task HoldUniqueAsync(FidDb db, LiveFields fields, IEnumerable<string> keys, CancellationToken cancellation)
    {
        foreach (var key in keys.Where(k => fields.Set.Find(k)?.Unique == true).Order(StringComparer.Ordinal))
            await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({"unique " + key}, 0))", cancellation);
    }

    private static IEnumerable<Problem> CheckTogether(Entered entered, SaveRecordRequest request, Employment employment)
    {
        if (entered.Values.Count + entered.Problems.Count == 0)
            yield return new Problem("/changes", "missing", "Say what is to change.");
        foreach (var name in new[] { "given_name", "family_name" })
            if (entered.Values.TryGetValue(name, out var value) && value is null)
                yield return new Problem($"/changes/{name}", "missing", "A record needs a name.");
        if (entered.Values.TryGetValue("end_date", out var end) && end is { } text
            && LocalDate.FromDateTime(text.GetDateTime()) < employment.Start)
            yield return new Problem("/changes/end_date", "not-in-order", "The end is not before the start.");
        if (request.From is { } from && !ValueCheck.IsSensible(from))
            yield return new Problem("/from", "bad-date", "Enter a date from 1900 to 2199.");
        if (Reason.Check(request.Why) is { } reason) yield return reason;
    }
}

/// <summary>Changes to a record.</summary>
/// <param name="Changes">New values by field key; null empties a field.</param>
/// <param name="From">The day from which they hold; left out, they correct what is there.</param>
/// <param name="Why">Why, in the reader's words.</param>
public sealed record SaveRecordRequest(Dictionary<string, JsonElement> Changes, LocalDate? From, string? Why);
