using System.Text.Json;
using NodaTime;

namespace Fid.Core.Fields;

/// <summary>How much of a record is filled.</summary>
/// <param name="Filled">Shown fields with a value.</param>
/// <param name="Of">All shown fields.</param>
/// <param name="Missing">Keys of the shown fields that are required, now or from some stage on, and empty, in the order they are shown.</param>
/// <param name="ShownFilled">Keys of the shown fields with a value.</param>
public sealed record Completeness(int Filled, int Of, IReadOnlyList<string> Missing, IReadOnlyList<string> ShownFilled)
{
    /// <summary>Counts the fields that have a value, of those that are shown on a day.</summary>
    /// <param name="rights">What the user who looks may see: no other fields are counted; null for the whole record, as the system sees it.</param>
    public static Completeness Count(FieldSet set, IReadOnlyDictionary<string, JsonElement> values, LocalDate today, FieldRights? rights = null)
    {
        // Nothing is filled in here: what counts is what is stored.
        var record = RecordEvaluation.Of(set, new RecordQuestion(values, set.Keys, [], rights, null, today, RecordQuestion.NoLists));
        var missing = record.MissingNow.Concat(record.MissingLater.SelectMany(l => l.Fields)).ToHashSet(StringComparer.Ordinal);
        var filled = record.Shown.Where(record.Values.ContainsKey).ToList();
        return new Completeness(filled.Count, record.Shown.Count, [.. record.Shown.Where(missing.Contains)], filled);
    }
}
