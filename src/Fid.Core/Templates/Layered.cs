using System.Text.Json;

namespace Fid.Core.Templates;

/// <summary>What layers come to.</summary>
/// <param name="Layers">The ids of the layers, lowest first.</param>
/// <param name="Values">Record values by field key, in the order of their first appearance.</param>
/// <param name="Lists">By the name of a list, all of <see cref="TemplateLists.All"/>, the entries left, in the order of their first appearance.</param>
/// <param name="Dropped">What was taken away, list by list.</param>
public sealed record Layered(
    IReadOnlyList<string> Layers,
    IReadOnlyDictionary<string, LayeredValue> Values,
    IReadOnlyDictionary<string, IReadOnlyList<LayeredEntry>> Lists,
    IReadOnlyList<DroppedEntry> Dropped
)
{
    /// <summary>The tasks left.</summary>
    public IReadOnlyList<LayeredEntry> Tasks => Lists[TemplateLists.Tasks];
}

/// <summary>A value, the layer that set it, and what it displaced.</summary>
/// <param name="Value">The value; of a formula, what it came to.</param>
/// <param name="From">The layer that set it.</param>
/// <param name="Displaced">What lower layers had set, the nearest first.</param>
public sealed record LayeredValue(JsonElement Value, string From, IReadOnlyList<Displaced> Displaced);

/// <summary>A value that a later layer displaced.</summary>
/// <param name="From">The layer that had set it.</param>
/// <param name="Value">The value; of a formula, what it would come to for this hire.</param>
public sealed record Displaced(string From, JsonElement Value);

/// <summary>An entry of a list with its properties, each with its trail.</summary>
/// <param name="Key">The entry's key.</param>
/// <param name="Properties">Its properties by name.</param>
public sealed record LayeredEntry(string Key, IReadOnlyDictionary<string, LayeredValue> Properties);

/// <summary>An entry that a layer took away.</summary>
/// <param name="List">The list: one of <see cref="TemplateLists.All"/>.</param>
/// <param name="Key">The entry's key.</param>
/// <param name="By">The layer.</param>
public sealed record DroppedEntry(string List, string Key, string By);
