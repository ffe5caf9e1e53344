using System.Text.Json;

namespace Fid.Core.Templates;

/// <summary>Lays layers over each other, the later winning, and keeps the whole trail of who set what.</summary>
public static class Layering
{
    /// <summary>What the layers come to. Tasks stand in the order of their first appearance.</summary>
    /// <param name="layers">The layers, lowest first.</param>
    public static Layered Merge(IReadOnlyList<Layer> layers)
    {
        var values = new Dictionary<string, LayeredValue>(StringComparer.Ordinal);
        var tasks = new Dictionary<string, Dictionary<string, LayeredValue>>(StringComparer.Ordinal);
        var order = new List<string>();
        var droppedBy = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var layer in layers)
        {
            Set(values, layer.Values, layer.Id);
            foreach (var task in layer.Tasks)
            {
                if (!tasks.TryGetValue(task.Key, out var properties))
                {
                    tasks[task.Key] = properties = new Dictionary<string, LayeredValue>(StringComparer.Ordinal);
                    order.Add(task.Key);
                }
                Set(properties, task.Properties, layer.Id);
                if (task.Drop) droppedBy[task.Key] = layer.Id;
                else droppedBy.Remove(task.Key);
            }
        }
        return new Layered(
            [.. layers.Select(l => l.Id)],
            values,
            [.. order.Where(k => !droppedBy.ContainsKey(k)).Select(k => new LayeredTask(k, tasks[k]))],
            [.. order.Where(droppedBy.ContainsKey).Select(k => new DroppedTask(k, droppedBy[k]))]);
    }

    private static void Set(Dictionary<string, LayeredValue> into, IReadOnlyDictionary<string, JsonElement> set, string layer)
    {
        foreach (var (name, value) in set)
            into[name] = into.TryGetValue(name, out var lower)
                ? new LayeredValue(value, layer, [new Displaced(lower.From, lower.Value), .. lower.Displaced])
                : new LayeredValue(value, layer, []);
    }
}

/// <summary>What layers come to.</summary>
/// <param name="Layers">The ids of the layers, lowest first.</param>
/// <param name="Values">Record values by field key.</param>
/// <param name="Tasks">The tasks left, in the order of their first appearance.</param>
/// <param name="Dropped">The tasks taken away.</param>
public sealed record Layered(
    IReadOnlyList<string> Layers,
    IReadOnlyDictionary<string, LayeredValue> Values,
    IReadOnlyList<LayeredTask> Tasks,
    IReadOnlyList<DroppedTask> Dropped);

/// <summary>A value, the layer that set it, and what it displaced.</summary>
/// <param name="Value">The value.</param>
/// <param name="From">The layer that set it.</param>
/// <param name="Displaced">What lower layers had set, the nearest first.</param>
public sealed record LayeredValue(JsonElement Value, string From, IReadOnlyList<Displaced> Displaced);

/// <summary>A value that a later layer displaced.</summary>
/// <param name="From">The layer that had set it.</param>
/// <param name="Value">The value.</param>
public sealed record Displaced(string From, JsonElement Value);

/// <summary>A task with its properties, each with its trail.</summary>
/// <param name="Key">The task's key.</param>
/// <param name="Properties">Its properties by name.</param>
public sealed record LayeredTask(string Key, IReadOnlyDictionary<string, LayeredValue> Properties);

/// <summary>A task that a layer took away.</summary>
/// <param name="Key">The task's key.</param>
/// <param name="By">The layer.</param>
public sealed record DroppedTask(string Key, string By);
