using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>What of a change of a record others have to agree to, whoever makes it and by whichever way.</summary>
public sealed class RecordApprovals(FidDb db, SensitiveValues sensitive)
{
    /// <summary>The code of a problem with a value that others have to agree to first.</summary>
    public const string NeedsApproval = "needs-approval";

    /// <summary>What is wrong with an edit that nobody has agreed to; the paths are a slash and the address.</summary>
    /// <param name="distances">How far pay lies from what it is held against; null where no condition reads it.</param>
    public async Task<IReadOnlyList<Problem>> UnagreedAsync(
        LiveFields fields,
        FollowedEdit followed,
        PayDistances? distances,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var problems = new List<Problem>();
        if (fields.Approvals.Rules.Count == 0)
            return problems;
        var changes = await ChangesAsync(fields, followed, cancellation);
        var read = PayDistances.Read(distances, followed.Edit.Employment.Id, followed.Held, changes);
        foreach (var change in changes)
            if (fields.Approvals.Asks(change, read, today))
                problems.Add(new Problem($"/{change.Field}", NeedsApproval, "Others have to agree to this. Ask for it on the record."));
        return problems;
    }

    /// <summary>What an edit changes, with what follows from it.</summary>
    public async Task<IReadOnlyList<RequestedChange>> ChangesAsync(LiveFields fields, FollowedEdit followed, CancellationToken cancellation)
    {
        var changes = new List<RequestedChange>();
        foreach (var edit in followed.Edit.Edits)
        {
            JsonElement? held = followed.Held.TryGetValue(edit.Field, out var there) ? there : null;
            if (await DiffersAsync(fields.Set.Find(edit.Field)!, OwnerOf(fields, edit.Field, followed.Edit.Employment), held, edit.Value, cancellation))
                changes.Add(RequestedChange.Of(edit.Field, held, edit.Value));
        }
        return changes;
    }

    /// <summary>Whether a value is another than the one that is held; those that are sealed are compared as what they stand for.</summary>
    public async ValueTask<bool> DiffersAsync(FieldDefinition field, Guid owner, JsonElement? held, JsonElement? value, CancellationToken cancellation)
    {
        if (held is not { } one || value is not { } other)
            return (held is null || FieldValues.IsEmpty(held.Value)) != (value is null || FieldValues.IsEmpty(value.Value));
        if (!field.Sensitive)
            return !JsonElement.DeepEquals(one, other);
        return SealedText.Comparable(one) != SealedText.Comparable(await sensitive.SealAsync(db, owner, field.Key, other, cancellation));
    }

    /// <summary>The employment, or the person, whose fact the value at an address is.</summary>
    public static Guid OwnerOf(LiveFields fields, string address, Employment employment) =>
        fields.Set.Find(address)!.Of == FieldOwner.Person ? employment.PersonId : employment.Id;

    /// <summary>Whether others have to agree before a change is taken back: to what would be believed again in place of it.</summary>
    public async Task<bool> IsUndoneByOthersAsync(Employment employment, Change taken, LocalDate today, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        if (fields.Approvals.Rules.Count == 0)
            return false;
        var touched = await RecordWriter.TouchedBy(db, employment, taken).AsNoTracking().ToListAsync(cancellation);
        var held = (await ShownValues.OfAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal);
        var changes = touched
            .GroupBy(v => v.Address)
            .Select(g => RequestedChange.Of(g.Key, Latest(g.Where(v => v.ChangeId == taken.Id)), Latest(g.Where(v => v.ChangeId != taken.Id))))
            .ToList();
        var distances = await PayDistances.LoadAsync(db, fields.Approvals, [employment.Id], today, cancellation);
        var read = PayDistances.Read(distances, employment.Id, held, changes);
        return changes.Exists(change => fields.Approvals.Asks(change, read, today));

        static JsonElement? Latest(IEnumerable<RecordValue> values) => values.MaxBy(v => v.Effective.LowerBound)?.Value;
    }
}
