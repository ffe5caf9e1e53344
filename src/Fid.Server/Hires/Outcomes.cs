using System.Security.Claims;
using Fid.Core;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Hires that come to nothing: the person did not come, or somebody stepped back. Both can be taken back.</summary>
internal static class Outcomes
{
    /// <summary>Closes a hire: its open tasks are cancelled, its stint ends before it began, other systems are told, and what was
    /// issued is listed.</summary>
    public static async Task<Results<Ok<OutcomeResponse>, ProblemHttpResult>> Set(
        Guid id, OutcomeRequest request, ClaimsPrincipal user, FidDb db, RecordWriter records, HireClosing closing, FirmClock clock, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } bad) return Problems.Invalid(bad);
        if (Reason.Clean(request.Why) is not { } why) return Problems.Invalid(new Problem("/why", "missing", "Say why."));
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await LoadAsync(id, db, records, cancellation) is not var (hire, employment, record)) return Problems.NotFound();
        if (hire.Closed is not null) return Problems.Conflict("closed", "This hire is closed already.");
        var today = await clock.TodayAsync(db, cancellation);
        if (request.Outcome == HireOutcome.NoShow && hire.Start > today) return Problems.Invalid(new Problem("/outcome", "too-early", "The first day has not come yet. Say that the person withdrew, or move the start."));
        var change = user.Author(clock, "checklist").Change(request.Outcome == HireOutcome.NoShow ? "hire.noShow" : "hire.withdrawn", id, null, why);
        db.Changes.Add(change);
        await closing.CloseAsync((hire, employment, record), request.Outcome, why, change, today, cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new OutcomeResponse(request.Outcome, await IssuedAsync(employment, await Reader.OfAsync(user, db, cancellation), db, today, cancellation)));
    }

    /// <summary>Goes on with a hire that had come to nothing: what was cancelled with it is open again.</summary>
    public static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(
        Guid id, ClaimsPrincipal user, FidDb db, RecordWriter records, HireClosing closing, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await LoadAsync(id, db, records, cancellation) is not var (hire, employment, record)) return Problems.NotFound();
        if (hire.Outcome is null) return Problems.Conflict("not-closed", "This hire has not come to nothing.");
        if (await Employment.AnyGoesOnAsync(db, employment.PersonId, employment.Start, employment.Id, cancellation))
            return Problems.Conflict("other-stint", "They have another stint by now. Close that one first.");
        var today = await clock.TodayAsync(db, cancellation);
        var change = user.Author(clock, "checklist").Change("hire.wentOn", id);
        db.Changes.Add(change);
        await closing.GoOnAsync((hire, employment, record), change, today, cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>A hire with its tasks, its stint and its record, held against others who would change them; null where there is none.</summary>
    internal static async Task<(Hire Hire, Employment Employment, RecordNow Record)?> LoadAsync(Guid id, FidDb db, RecordWriter records, CancellationToken cancellation)
    {
        if (await db.Hires.AsNoTracking().Where(h => h.Id == id).Select(h => (Guid?)h.EmploymentId).SingleOrDefaultAsync(cancellation) is not { } employment) return null;
        await records.LockAsync(employment, cancellation);
        return (
            await db.Hires.Include(h => h.Tasks).SingleAsync(h => h.Id == id, cancellation), await db.Employments.SingleAsync(e => e.Id == employment, cancellation),
            await db.RecordsNow.SingleAsync(r => r.EmploymentId == employment, cancellation));
    }

    // What the person holds already and has to give back.
    private static async Task<ReusableFact[]> IssuedAsync(Employment employment, Reader reader, FidDb db, LocalDate today, CancellationToken cancellation)
    {
        var values = reader.Seen(await HireOrigins.ValuesAsync(db, employment, today, cancellation));
        var issued = HireOrigins.Reusable.Where(values.ContainsKey).ToList();
        var display = await RecordReader.DisplayAsync(db, reader.Fields, issued.Select(f => (f, values[f])), await ListNames.LoadAsync(db, cancellation, reader.SeesNames), cancellation);
        return [.. issued.Select(f => new ReusableFact(f, display.GetValueOrDefault(f) ?? values[f].ToString()))];
    }
}

/// <param name="Outcome">How it came to nothing.</param>
public sealed record OutcomeRequest(HireOutcome Outcome, string Why);

/// <param name="ToReturn">What was issued and is to be returned.</param>
public sealed record OutcomeResponse(HireOutcome Outcome, ReusableFact[] ToReturn);
