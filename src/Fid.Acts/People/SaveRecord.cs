using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Saves changes to a record: from a day on, or as corrections of what is there.</summary>
public sealed class SaveRecord(FidDb db, RecordWriter records, EnteredValues enteredValues)
{
    public async Task<ActResult> DoAsync(SaveRecordRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RecordAsync(db, request.Employment, cancellation);
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: true, cancellation) is not var (employment, record))
            return Refusal.NotFound;

        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (fields, rights) = (reader.Fields, reader.On(record));
        await records.LockUniqueAsync(request.Changes.Keys, cancellation);
        var start = await StartCorrection.OfAsync(db, reader, request.Changes, employment, record, cancellation);
        var entered = await enteredValues.CheckAsync(fields, new EnteredRecord(start.Others, employment.PersonId, employment.Id, rights), cancellation);
        if (start.Problem is { } wrong)
            entered.Problems.Add(wrong);
        List<Problem> problems =
        [
            .. entered.Problems.Concat(RecordRules.Misfits(entered.Values, start.To ?? employment.Start)).Select(p => p.Under("/changes")),
            .. CheckRequest(request),
        ];
        if (
            problems.Count == 0
            && Reason.Clean(request.Why) is null
            && await PayReason.MissingAsync(db, reader, employment, record, entered.Values, actor.Today, cancellation) is { } unexplained
        )
            problems.Add(unexplained);
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (request.Version is not { } seen)
            return Refusal.VersionNeeded;
        if (record.Version != seen)
            return Refusal.ChangedMeanwhile;

        var change = act.Note(
            actor.Author("record").Change(request.From is null ? "record.fixed" : "record.changed", employment.Id, why: Reason.Clean(request.Why))
        );
        if (start.To is { } first)
        {
            await records.MoveStartAsync(
                employment,
                record,
                first,
                new Dictionary<string, JsonElement> { [StartCorrection.Field] = request.Changes[StartCorrection.Field] },
                change,
                actor.Today,
                cancellation
            );
            // Written before the rest, which is entered into what it leaves.
            await db.SaveChangesAsync(cancellation);
        }
        var edits = entered.Values.Select(v => new FieldEdit(v.Key, v.Value, Layer.Typed, request.From)).ToList();
        var clash = await records.SaveAsync([new RecordEdit(employment, record, edits, change)], actor.Today, cancellation);
        if (clash.Count > 0)
            return Refusal.Invalid([.. clash.Select(c => c.Problem.Under("/changes"))]);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static IEnumerable<Problem> CheckRequest(SaveRecordRequest request)
    {
        if (request.Changes.Count == 0)
            yield return new Problem("/changes", "missing", "Say what is to change.");
        if (request.From is { } from && !ValueCheck.IsSensible(from))
            yield return new Problem("/from", "bad-date", "Enter a date from 1900 to 2199.");
        if (Reason.Check(request.Why) is { } reason)
            yield return reason;
    }
}

/// <param name="Changes">New values by field key; null empties a field.</param>
/// <param name="From">The day from which they hold; left out, they correct what is there.</param>
/// <param name="Version">The version of the record that was seen.</param>
public sealed record SaveRecordRequest(Guid Employment, Dictionary<string, JsonElement> Changes, LocalDate? From, string? Why, uint? Version);
