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
/// <param name="Lists">By the name of a list, one of <see cref="TemplateLists.All"/>, the entries it adds, changes or drops; each key
/// stands once.</param>
public sealed record LayerContent(IReadOnlyDictionary<string, LayerValue> Values, IReadOnlyDictionary<string, IReadOnlyList<LayerEntry>> Lists)
{
    /// <summary>Values as they were typed.</summary>
    public static LayerContent OfLiterals(IEnumerable<KeyValuePair<string, JsonElement>> values) =>
        new(values.ToDictionary(v => v.Key, v => new LayerValue(v.Value, null), StringComparer.Ordinal), new Dictionary<string, IReadOnlyList<LayerEntry>>());

    /// <summary>The entries of a list; none of one it does not name.</summary>
    public IReadOnlyList<LayerEntry> Entries(string list) => Lists.GetValueOrDefault(list) ?? [];
}

/// <summary>The lists that templates have.</summary>
public static class TemplateLists
{
    /// <summary>Tasks of the checklist.</summary>
    public const string Tasks = "tasks";

    /// <summary>Items to issue.</summary>
    public const string Items = "items";

    /// <summary>Documents to read, sign or hand in.</summary>
    public const string Documents = "documents";

    /// <summary>Certificates to hold.</summary>
    public const string Certificates = "certificates";

    /// <summary>Further jobs the person may be put to, each at its own rate.</summary>
    public const string SecondJobs = "secondJobs";

    /// <summary>Messages to the newcomer before the first day.</summary>
    public const string Welcome = "welcome";

    /// <summary>Stages of which a condition says whether they apply.</summary>
    public const string Stages = "stages";

    /// <summary>All of them, in the order in which they are shown.</summary>
    public static IReadOnlyList<string> All { get; } = [Tasks, Items, Documents, Certificates, SecondJobs, Welcome, Stages];
}

/// <summary>A value that a layer sets: as it stands, or as a formula over the facts and other values comes to it.</summary>
/// <param name="Value">The value; of a formula, JSON null.</param>
/// <param name="Formula">The formula; null where the value stands.</param>
public sealed record LayerValue(JsonElement Value, RecordFormula? Formula)
{
    /// <summary>Whether both come to the same whatever the facts.</summary>
    public bool SameAs(LayerValue other) =>
        Formula is null
            ? other.Formula is null && JsonElement.DeepEquals(Value, other.Value)
            : other.Formula is not null && Formula.Text.Trim() == other.Formula.Text.Trim();
}

/// <summary>What a layer says about an entry of a list.</summary>
/// <param name="Key">The entry's key, by which layers mean the same one.</param>
/// <param name="Properties">The properties it sets; others stay as lower layers set them.</param>
/// <param name="Drop">Whether it takes the entry away. A later layer brings it back by naming it again.</param>
public sealed record LayerEntry(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false);
