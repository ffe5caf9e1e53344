using System.Text.Json;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.PayElements;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Offers;

/// <summary>Takes one form of an offer over into a record: its pay, and its start where that is another one.</summary>
public sealed class TakeOffer(FidDb db, MoveStart moveStart, SaveRecord saveRecord)
{
    /// <summary>Whether forms of an offer can differ in a value: a rate of pay, or what is paid beside it.</summary>
    /// <param name="address">Which value.</param>
    public static bool IsOffered(string address) => PayReading.Fields.Contains(address) || FieldAddress.Read(address).Whole == PayElementRows.Field;

    public async Task<ActResult> DoAsync(TakeOfferRequest request, Actor actor, CancellationToken cancellation)
    {
        List<Problem> problems = [.. Foreign(request.Changes, "/changes")];
        if (request.Changes.Count == 0 && request.Start is null)
            problems.Add(new Problem("/changes", "missing", "Say what is to change."));
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (request.Version is not { } seen)
            return Refusal.VersionNeeded;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RecordAsync(db, request.Employment, cancellation);
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: false, cancellation) is not var (employment, record))
            return Refusal.NotFound;
        if (record.Version != seen)
            return Refusal.ChangedMeanwhile;
        if (request.Start is { } start && start != employment.Start)
        {
            var hire = await db
                .Hires.AsNoTracking()
                .SingleOrDefaultAsync(h => h.EmploymentId == employment.Id && h.Occasion == Occasion.Arrival && h.Closed == null, cancellation);
            if (hire is null)
                return Refusal.Invalid("/start", "not-arriving", "Only the start of somebody who is arriving can move. Leave it as it is.");
            if ((await moveStart.DoAsync(new MoveStartRequest(hire.Id, start, request.Why, hire.Version), actor, cancellation)).Refusal is { } unmoved)
                return unmoved;
        }
        if (request.Changes.Count > 0)
        {
            var version = await db.CurrentRecords.Where(r => r.EmploymentId == employment.Id).Select(r => r.Version).SingleAsync(cancellation);
            var save = new SaveRecordRequest(employment.Id, request.Changes, null, request.Why, version);
            if ((await saveRecord.DoAsync(save, actor, cancellation)).Refusal is { } unsaved)
                return unsaved;
        }
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>What forms of an offer cannot differ in.</summary>
    /// <param name="pointer">Where they stand.</param>
    public static IEnumerable<Problem> Foreign(IReadOnlyDictionary<string, JsonElement> changes, string pointer) =>
        changes.Keys.Where(k => !IsOffered(k)).Select(f => new Problem($"{pointer}/{f}", "unknown-property", "An offer is about pay. Leave this out."));
}

/// <param name="Changes">New values by address, of those that <see cref="TakeOffer.IsOffered"/> allows; null empties one.</param>
/// <param name="Start">The first day; null for the one there is.</param>
/// <param name="Version">The version of the record that was seen.</param>
public sealed record TakeOfferRequest(Guid Employment, Dictionary<string, JsonElement> Changes, LocalDate? Start, string? Why, uint? Version);
