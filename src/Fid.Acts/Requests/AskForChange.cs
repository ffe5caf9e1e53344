using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Requests;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Requests;

/// <summary>Asks for a change of a record that whoever asks may not make alone. Nothing of it is true until those asked have agreed.</summary>
public sealed class AskForChange(FidDb db, RecordWriter records, RequestedChanges requested, RequestRoute routes)
{
    /// <summary>How many requests of one user can wait at a time.</summary>
    public const int MostWaiting = 200;

    public async Task<ActResult<RecordRequest>> DoAsync(AskForChangeRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready && await LatestAsync(request, actor, cancellation) is { } there)
            return there;
        await Locks.RecordAsync(db, request.Employment, cancellation);
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: true, cancellation) is not var (employment, record))
            return Refusal.NotFound;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (of, rights) = (new AskedRecord(reader.Fields, employment, record), reader.On(record));
        var author = actor.Author("record");
        var id = Guid.CreateVersion7();
        await records.LockUniqueAsync(request.Changes.Keys, cancellation);
        var read = await requested.ReadAsync(
            of,
            rights,
            request.Changes,
            request.From,
            author.Change("request.asked", id, employment.Id.ToString(), Reason.Clean(request.Why)),
            actor.Today,
            cancellation
        );
        List<Problem> problems = [.. read.Problems.Select(p => p.Under("/changes")), .. CheckRequest(request)];
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (request.Version is not { } seen)
            return Refusal.VersionNeeded;
        if (record.Version != seen)
            return Refusal.ChangedMeanwhile;
        var changes = await requested.KeepAsync(of, read, cancellation);
        if (changes.Count == 0)
            return Refusal.Invalid("/changes", "nothing-changes", "The record says this already.");
        var route = await routes.OfAsync(of, read, actor.Account, rights, actor.Today, cancellation);
        if (route.Steps.Count == 0)
            return Refusal.Invalid("/changes", "nobody-to-ask", "You may change this yourself: save it.");
        if (await WaitingAsync(actor, employment.Id, changes, cancellation) is { } waits)
            return waits;

        var asked = new RecordRequest
        {
            Id = id,
            EmploymentId = employment.Id,
            AskedById = actor.Account,
            AskedByName = author.Name,
            AskedAt = author.At,
            From = request.From,
            Why = Reason.Clean(request.Why)!,
            Changes = changes,
            Steps = route.Steps,
        };
        db.Add(asked);
        act.Note(read.Entered!.Change);
        await act.CommitAsync(cancellation);
        return asked;
    }

    // One who asks twice would find the second overtaken by the first.
    private async Task<Refusal?> WaitingAsync(Actor actor, Guid employment, IReadOnlyList<RequestedValue> changes, CancellationToken cancellation)
    {
        var waiting = await db
            .RecordRequests.AsNoTracking()
            .Where(r => r.AskedById == actor.Account && r.State == RequestState.Waiting)
            .OrderByDescending(r => r.AskedAt)
            .Take(MostWaiting)
            .ToListAsync(cancellation);
        if (waiting.Count == MostWaiting)
            return Refusal.Conflict("too-many", $"{MostWaiting} of your requests wait. Withdraw some, or wait until they are decided on.");
        var twice = waiting.Where(w => w.EmploymentId == employment).SelectMany(w => w.Changes).Select(c => c.Field).ToHashSet(StringComparer.Ordinal);
        Problem[] problems =
        [
            .. changes
                .Where(c => twice.Contains(c.Field))
                .Select(c => new Problem($"/changes/{c.Field}", "waits-already", "You have asked for this already, and it waits. Withdraw that first.")),
        ];
        return problems.Length > 0 ? Refusal.Invalid(problems) : null;
    }

    private Task<RecordRequest?> LatestAsync(AskForChangeRequest request, Actor actor, CancellationToken cancellation) =>
        db
            .RecordRequests.AsNoTracking()
            .Where(r => r.AskedById == actor.Account && r.EmploymentId == request.Employment)
            .OrderByDescending(r => r.AskedAt)
            .FirstOrDefaultAsync(cancellation);

    private static IEnumerable<Problem> CheckRequest(AskForChangeRequest request)
    {
        if (request.Changes.Count == 0)
            yield return new Problem("/changes", "missing", "Say what is to change.");
        if (request.From is { } from && !ValueCheck.IsSensible(from))
            yield return new Problem("/from", "bad-date", "Enter a date from 1900 to 2199.");
        if (Reason.Clean(request.Why) is null)
            yield return new Problem("/why", "missing", "Say why: it is read by those who are asked.");
        else if (Reason.Check(request.Why) is { } reason)
            yield return reason;
    }
}

/// <param name="Changes">New values by address; null empties one.</param>
/// <param name="From">The day from which they are to hold; left out, they correct what is there.</param>
/// <param name="Version">The version of the record that was seen.</param>
public sealed record AskForChangeRequest(Guid Employment, Dictionary<string, JsonElement> Changes, LocalDate? From, string? Why, uint? Version);
