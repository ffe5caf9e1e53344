using System.Text.Json;
using Fid.Core;
using Fid.Data.Changes;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>A value of a field, and where it came from.</summary>
public sealed record FieldValue(string Field, JsonElement Value, string Source);

/// <summary>A field to change.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Value">The new value; null for none.</param>
/// <param name="Source">Where it comes from.</param>
/// <param name="From">The day from which the new value holds; null to correct the present one.</param>
public sealed record FieldEdit(string Field, JsonElement? Value, string Source, LocalDate? From);

/// <summary>Fields to change of a record.</summary>
/// <param name="Employment">Whose, tracked and locked.</param>
/// <param name="Record">Its projection, tracked.</param>
/// <param name="Edits">The fields, each once.</param>
/// <param name="Change">The entry in the trail that tells of it.</param>
public sealed record RecordEdit(Employment Employment, CurrentRecord Record, IReadOnlyList<FieldEdit> Edits, Change Change)
{
    /// <summary>Whether nobody is to be asked: those who had to agree have, or what is said of the person stays what it was, as where an entry
    /// of a list is called something else, or two records turn out to be one.</summary>
    public bool IsAgreed { get; init; }
}

/// <summary>A change of a record that is taken back.</summary>
/// <param name="Employment">Whose, tracked and locked.</param>
/// <param name="Record">Its projection, tracked.</param>
/// <param name="Taken">The change.</param>
/// <param name="Change">The entry in the trail that tells of it.</param>
public sealed record TakenBack(Employment Employment, CurrentRecord Record, Change Taken, Change Change);

/// <summary>A change of a record with what follows from it.</summary>
/// <param name="Edit">The fields to change, also those that rules set.</param>
/// <param name="Held">What the record holds on the day from which it is to be, by address.</param>
public sealed record FollowedEdit(RecordEdit Edit, IReadOnlyDictionary<string, JsonElement> Held);

/// <summary>What is wrong with a change of a record.</summary>
/// <param name="Record">The place of the record, from 0.</param>
/// <param name="Problem">The path is a slash and the field's key.</param>
public sealed record RecordProblem(int Record, Problem Problem);
