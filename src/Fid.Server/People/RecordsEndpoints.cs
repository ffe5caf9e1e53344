using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.Lists;
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
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(422).ProducesProblem(428);
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
        var state = await ActKey.TakeAsync(http, user, db, clock, request, cancellation);
        if (state.Refuse() is { } refused) return refused;
        if (state == ActState.Done) return await Show(id, user, db, clock, http, cancellation);
        await writer.LockAsync(id, cancellation);
        if (await RecordAccess.FindAsync(user, db, id, tracked: true, cancellation) is not var (employment, record)) return Problems.NotFound();
        var today = await clock.TodayAsync(db, cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var roles = ShownRecord.RolesOf(user);
        await writer.HoldUniqueAsync(request.Changes.Keys, cancellation);
        var start = await StartCorrection.OfAsync(db, user, fields.Set, request.Changes, employment, cancellation);
        var entered = await EnteredValues.CheckAsync(db, sensitive, fields, start.Others, roles, employment, cancellation);
        if (start.Problem is { } wrong) entered.Problems.Add(wrong);
        var problems = entered.Problems.Concat(RecordRules.Misfits(entered.Values, start.To ?? employment.Start)).Select(p => p.Under("/changes")).ToList();
        problems.AddRange(CheckRequest(request));
        if (problems.Count > 0) return Problems.Invalid(problems);
        if (Versions.Seen(http.Request) is not { } seen) return Problems.VersionNeeded();
        if (record.Version != seen) return Problems.Stale((await RecordReader.DescribeAsync(db, id, user, today, cancellation))!);

        var held = (await RecordReader.ValuesAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value);
        var calendars = fields.Set.CountsWorkingDays ? await CalendarBook.LoadAsync(db, cancellation) : null;
        var (ruled, clash) = RecordRules.Follow(fields.Set, held, entered.Values, today, values => calendars?.OfRecord(values));
        if (clash.Count > 0) return Problems.Invalid([.. clash.Select(p => p.Under("/changes"))]);
        await writer.HoldEntriesAsync(entered.Values.Select(v => (v.Key, v.Value)), cancellation);
        var change = user.Author(clock, "record").Change(request.From is null ? "record.fixed" : "record.changed", employment.Id, why: Reason.Clean(request.Why));
        db.Changes.Add(change);
        if (start.To is { } first)
        {
            await writer.MoveStartAsync(employment, record, first, new Dictionary<string, JsonElement> { [StartCorrection.Field] = request.Changes[StartCorrection.Field] }, change, today, cancellation);
            // Written before the rest, which is entered into what it leaves.
            await db.SaveChangesAsync(cancellation);
        }
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

    private static IEnumerable<Problem> CheckRequest(SaveRecordRequest request)
    {
        if (request.Changes.Count == 0)
            yield return new Problem("/changes", "missing", "Say what is to change.");
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
