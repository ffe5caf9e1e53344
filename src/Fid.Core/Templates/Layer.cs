using System.Text.Json;
using Fid.Core.Formulas;

namespace Fid.Core.Templates;

/// <summary>One layer of what a hire starts with: a template, an add-on, or what the coordinator typed.</summary>
/// <param name="Id">Names the layer with its version, as answers show it: "template:deckhand@4", "addOn:skerry@1", "typed".</param>
/// <param name="Content">What it sets.</param>
public sealed record Layer(string Id, LayerContent Content)
{
    /// <summary>The name of the layer that holds what the coordinator typed.</summary>
    public const string Typed = "typed";
}

/// <summary>What a layer sets. What it does not name stays as lower layers set it.</summary>
/// <param name="Values">Record values by field key.</param>
/// <param name="Tasks">Tasks it adds, changes or drops; each key stands once.</param>
/// <param name="Items">Items to issue, likewise.</param>
/// <param name="Documents">Documents, likewise.</param>
public sealed record LayerContent(
    IReadOnlyDictionary<string, LayerValue> Values, IReadOnlyList<LayerEntry> Tasks, IReadOnlyList<LayerEntry> Items, IReadOnlyList<LayerEntry> Documents)
{
    /// <summary>The names of the lists, as questions and answers call them.</summary>
    public static IReadOnlyList<string> Lists { get; } = ["tasks", "items", "documents"];

    /// <summary>Values as they were typed.</summary>
    public static LayerContent OfLiterals(IEnumerable<KeyValuePair<string, JsonElement>> values) =>
        new(values.ToDictionary(v => v.Key, v => new LayerValue(v.Value, null), StringComparer.Ordinal), [], [], []);

    /// <summary>The entries of a list of <see cref="Lists"/>, by its place there.</summary>
    public IReadOnlyList<LayerEntry> Entries(int list) => list switch { 0 => Tasks, 1 => Items, _ => Documents };
}

/// <summary>A value that a layer sets: as it stands, or as a formula over the facts and other values comes to it.</summary>
/// <param name="Value">The value; of a formula, JSON null.</param>
/// <param name="Formula">The formula; null where the value stands.</param>
public sealed record LayerValue(JsonElement Value, RecordFormula? Formula)
{
    /// <summary>Whether both come to the same whatever the facts.</summary>
    public bool SameAs(LayerValue other) => Formula is null
        ? other.Formula is null && JsonElement.DeepEquals(Value, other.Value)
        : other.Formula is not null && Formula.Text.Trim() == other.Formula.Text.Trim();
}

/// <summary>What a layer says about an entry of a list.</summary>
/// <param name="Key">The entry's key, by which layers mean the same one.</param>
/// <param name="Properties">The properties it sets; others stay as lower layers set them.</param>
/// <param name="Drop">Whether it takes the entry away. A later layer brings it back by naming it again.</param>
public sealed record LayerEntry(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false);
