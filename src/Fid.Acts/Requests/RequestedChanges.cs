using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Fid.Data.Requests;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Requests;

/// <summary>What a request asks for, worked out as a save of the record would: when it is asked, when it has to be asked again, and when it is done.</summary>
public sealed class RequestedChanges(FidDb db, RecordWriter records, RecordApprovals approvals, EnteredValues enteredValues, SensitiveValues sensitive)
{
    /// <summary>Reads what is asked for: checked as if it were entered, with what follows from it.</summary>
    /// <param name="asker">Who asks, with what they may of the record.</param>
    /// <param name="values">New values by address; null empties one.</param>
    /// <param name="change">The entry in the trail it would be made with.</param>
    public async Task<ReadRequest> ReadAsync(
        AskedRecord of,
        FieldRights asker,
        IReadOnlyDictionary<string, JsonElement> values,
        LocalDate? from,
        Change change,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (fields, employment, record) = of;
        var entered = await enteredValues.CheckAsync(fields, new EnteredRecord(values, employment.PersonId, employment.Id, asker.ForAsking()), cancellation);
        var problems = entered.Problems.Concat(RecordRules.Misfits(entered.Values, employment.Start)).ToList();
        if (problems.Count > 0)
            return new ReadRequest(null, problems);
        var edit = new RecordEdit(employment, record, [.. entered.Values.Select(v => new FieldEdit(v.Key, v.Value, Core.Templates.Layer.Typed, from))], change);
        var (followed, clash) = await records.FollowAsync(edit, today, cancellation);
        return clash.Count > 0 ? new ReadRequest(null, clash) : new ReadRequest(followed, []) { Entered = edit };
    }

    /// <summary>What is asked for as it is kept: only what differs from what is held, with what is sensitive sealed.</summary>
    public async Task<IReadOnlyList<RequestedValue>> KeepAsync(AskedRecord of, ReadRequest read, CancellationToken cancellation)
    {
        var kept = new List<RequestedValue>();
        foreach (var edit in read.Entered!.Edits)
        {
            var (field, owner) = (of.Fields.Set.Find(edit.Field)!, RecordApprovals.OwnerOf(of.Fields, edit.Field, of.Employment));
            JsonElement? held = read.Followed!.Held.TryGetValue(edit.Field, out var there) ? there : null;
            if (!await approvals.DiffersAsync(field, owner, held, edit.Value, cancellation))
                continue;
            var wanted = edit.Value is { } value && field.Sensitive ? await sensitive.SealAsync(db, owner, field.Key, value, cancellation) : edit.Value;
            kept.Add(new RequestedValue(edit.Field, owner, held, wanted));
        }
        return kept;
    }

    /// <summary>The values a request asks for, as they are entered.</summary>
    public Dictionary<string, JsonElement> Open(RecordRequest request) =>
        request.Changes.ToDictionary(
            c => c.Field,
            c =>
                c.New is not { } value ? JsonValues.Null
                : SealedText.IsSealed(value) ? sensitive.Open(c.Owner, FieldAddress.FieldOf(c.Field), value)
                : value,
            StringComparer.Ordinal
        );

    /// <summary>What records hold of what is asked for, on the day from which each is to be: by request and address.</summary>
    public static async Task<IReadOnlyDictionary<Guid, IReadOnlyDictionary<string, JsonElement>>> HeldAsync(
        FidDb db,
        IReadOnlyCollection<(RecordRequest Request, Employment Employment)> requests,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var owners = requests.SelectMany(r => new[] { r.Employment.Id, r.Employment.PersonId }).Distinct().ToArray();
        var fields = requests.SelectMany(r => r.Request.Changes).Select(c => FieldAddress.FieldOf(c.Field)).Distinct().ToArray();
        var rows = (
            await db
                .RecordValues.AsNoTracking()
                .Where(v => owners.Contains(v.OwnerId) && fields.Contains(v.Field) && v.Known.UpperBoundInfinite)
                .ToListAsync(cancellation)
        ).ToLookup(v => v.OwnerId);
        return requests.ToDictionary(
            r => r.Request.Id,
            IReadOnlyDictionary<string, JsonElement> (r) =>
            {
                var day = r.Request.From is { } from ? LocalDate.Max(from, r.Employment.Start) : RecordProjection.AsOf(r.Employment, today);
                return rows[r.Employment.Id]
                    .Concat(rows[r.Employment.PersonId])
                    .Where(v => v.HoldsOn(day))
                    .DistinctBy(v => v.Address)
                    .ToDictionary(v => v.Address, v => v.Value, StringComparer.Ordinal);
            }
        );
    }

    /// <summary>Whether a record holds something else than when a value was asked for.</summary>
    public static bool IsStale(RequestedValue value, IReadOnlyDictionary<string, JsonElement> held)
    {
        var (was, now) = (value.Old, held.TryGetValue(value.Field, out var there) ? there : (JsonElement?)null);
        return !AreSame(was, now);
    }

    /// <summary>Whether a record holds what a value asks for.</summary>
    public static bool IsHeld(RequestedValue value, IReadOnlyDictionary<string, JsonElement> held) =>
        AreSame(value.New, held.TryGetValue(value.Field, out var there) ? there : null);

    private static bool AreSame(JsonElement? one, JsonElement? other) =>
        one is { } a && other is { } b
            ? SealedText.IsSealed(a) || SealedText.IsSealed(b)
                ? SealedText.Comparable(a) == SealedText.Comparable(b)
                : JsonElement.DeepEquals(a, b)
            : (one is null || FieldValues.IsEmpty(one.Value)) && (other is null || FieldValues.IsEmpty(other.Value));
}

/// <summary>A record of which something is asked for.</summary>
public sealed record AskedRecord(LiveFields Fields, Employment Employment, CurrentRecord Record);

/// <summary>What is asked for, as it was read.</summary>
/// <param name="Followed">It with what follows; null where something is wrong.</param>
/// <param name="Problems">The paths are a slash and the field's key.</param>
public sealed record ReadRequest(FollowedEdit? Followed, IReadOnlyList<Problem> Problems)
{
    /// <summary>It as it was entered; null where something is wrong.</summary>
    public RecordEdit? Entered { get; init; }
}
