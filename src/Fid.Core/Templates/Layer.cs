using System.Text.Json;

namespace Fid.Core.Templates;

/// <summary>One layer of what a hire starts with: a template, an add-on, or what the coordinator typed.</summary>
/// <param name="Id">Names the layer with its version, as answers show it: "template:deckhand@4", "addOn:skerry@1", "typed".</param>
/// <param name="Values">Record values by field key.</param>
/// <param name="Tasks">Tasks the layer adds, changes or drops.</param>
public sealed record Layer(string Id, IReadOnlyDictionary<string, JsonElement> Values, IReadOnlyList<LayerTask> Tasks)
{
    /// <summary>The name of the layer that holds what the coordinator typed.</summary>
    public const string Typed = "typed";
}

/// <summary>What a layer says about a task.</summary>
/// <param name="Key">The task's key, by which layers mean the same task.</param>
/// <param name="Properties">The properties it sets; others stay as lower layers set them.</param>
/// <param name="Drop">Whether it takes the task away. A later layer may bring it back by naming it again.</param>
public sealed record LayerTask(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false);
