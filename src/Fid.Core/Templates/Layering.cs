namespace Fid.Core.Templates;

/// <summary>Lays layers over each other, the later winning, and keeps the whole trail of who set what.</summary>
internal static class Layering
{
    /// <summary>For each field what the layers set it to, the winner first and below it what it displaced, the nearest first.</summary>
    public static Dictionary<string, List<(Layer From, LayerValue Value)>> Values(IReadOnlyList<Layer> layers)
    {
        var trails = new Dictionary<string, List<(Layer, LayerValue)>>(StringComparer.Ordinal);
        foreach (var layer in layers)
        foreach (var (field, value) in layer.Content.Values)
        {
            if (!trails.TryGetValue(field, out var trail))
                trails[field] = trail = [];
            trail.Insert(0, (layer, value));
        }
        return trails;
    }

    /// <summary>The entries of a list, in the order of their first appearance, and those that were dropped. Dropping what is not
    /// there does nothing.</summary>
    /// <param name="list">One of <see cref="TemplateLists.All"/>.</param>
    public static (IReadOnlyList<LayeredEntry> Entries, IReadOnlyList<DroppedEntry> Dropped) Entries(IReadOnlyList<Layer> layers, string list)
    {
        var entries = new Dictionary<string, Dictionary<string, LayeredValue>>(StringComparer.Ordinal);
        var order = new List<string>();
        var droppedBy = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var layer in layers)
        foreach (var entry in layer.Content.Entries(list))
        {
            if (!entries.TryGetValue(entry.Key, out var properties))
            {
                if (entry.Drop)
                    continue;
                entries[entry.Key] = properties = new Dictionary<string, LayeredValue>(StringComparer.Ordinal);
                order.Add(entry.Key);
            }
            foreach (var (name, value) in entry.Properties)
                properties[name] = properties.TryGetValue(name, out var lower)
                    ? new LayeredValue(value, layer.Id, [new Displaced(lower.From, lower.Value), .. lower.Displaced])
                    : new LayeredValue(value, layer.Id, []);
            if (entry.Drop)
                droppedBy[entry.Key] = layer.Id;
            else
                droppedBy.Remove(entry.Key);
        }
        return (
            [.. order.Where(k => !droppedBy.ContainsKey(k)).Select(k => new LayeredEntry(k, entries[k]))],
            [.. order.Where(droppedBy.ContainsKey).Select(k => new DroppedEntry(list, k, droppedBy[k]))]
        );
    }
}
