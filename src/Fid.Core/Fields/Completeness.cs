namespace Fid.Core.Fields;

/// <summary>How much of a record is filled.</summary>
/// <param name="Filled">Fields with a value.</param>
/// <param name="Of">All fields.</param>
/// <param name="Missing">Keys of the fields that are needed before day one and empty, in the order they are shown.</param>
public sealed record Completeness(int Filled, int Of, IReadOnlyList<string> Missing)
{
    /// <summary>Counts the shipped fields that have a value.</summary>
    /// <param name="hasValue">Whether a field, by key, has one.</param>
    public static Completeness Count(Func<string, bool> hasValue)
    {
        var filled = ShippedFields.All.Count(f => hasValue(f.Key));
        var missing = ShippedFields.All.Where(f => f.RequiredFrom is not null && !hasValue(f.Key)).Select(f => f.Key);
        return new Completeness(filled, ShippedFields.All.Count, [.. missing]);
    }
}
