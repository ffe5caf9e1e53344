using System.Text.Json;
using Fid.Core.Json;

namespace Fid.Core.Templates;

/// <summary>What becomes of a hire under way when its template has a new version: field by field, who changed what since.</summary>
public static class TemplateMerge
{
    /// <summary>
    /// How each field that any of the three has fares. An absent field is a value of its own, other than null. Numbers are equal
    /// as numbers, and objects whatever the order of their properties.
    /// </summary>
    /// <param name="origin">What the version the hire was opened with came to.</param>
    /// <param name="mine">What the hire has now.</param>
    /// <param name="theirs">What the new version comes to.</param>
    /// <returns>In the order in which the fields first appear in <paramref name="origin"/>, then <paramref name="mine"/>, then <paramref
    /// name="theirs"/>.</returns>
    public static IReadOnlyList<KeyValuePair<string, MergeFate>> Merge(
        IReadOnlyDictionary<string, JsonElement> origin,
        IReadOnlyDictionary<string, JsonElement> mine,
        IReadOnlyDictionary<string, JsonElement> theirs
    ) =>
        [
            .. origin
                .Keys.Concat(mine.Keys)
                .Concat(theirs.Keys)
                .Distinct(StringComparer.Ordinal)
                .Select(f => KeyValuePair.Create(f, Fate(Of(origin, f), Of(mine, f), Of(theirs, f)))),
        ];

    private static MergeFate Fate(JsonElement? origin, JsonElement? mine, JsonElement? theirs) =>
        (JsonValues.Same(mine, origin), JsonValues.Same(theirs, origin)) switch
        {
            (true, true) => MergeFate.Same,
            (true, false) => MergeFate.Take,
            (false, true) => MergeFate.Keep,
            _ => JsonValues.Same(mine, theirs) ? MergeFate.Agree : MergeFate.Conflict,
        };

    private static JsonElement? Of(IReadOnlyDictionary<string, JsonElement> values, string field) => values.TryGetValue(field, out var value) ? value : null;
}

/// <summary>How a field fares.</summary>
public enum MergeFate
{
    /// <summary>Nobody changed it.</summary>
    Same,

    /// <summary>Only the template changed it: its value can be taken.</summary>
    Take,

    /// <summary>Only the hire changed it: its value is kept.</summary>
    Keep,

    /// <summary>Both changed it to the same.</summary>
    Agree,

    /// <summary>Both changed it, differently: somebody decides.</summary>
    Conflict,
}
