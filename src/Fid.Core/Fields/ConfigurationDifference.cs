using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Fid.Core.Fields;

/// <summary>What differs between two configurations, field by field and part by part.</summary>
public static class ConfigurationDifference
{
    /// <summary>The differences: fields of the later configuration in their order, then those that are gone. Where nothing but the
    /// order of fields differs, one difference without a field says so.</summary>
    public static IReadOnlyList<FieldDifference> Of(FieldConfiguration from, FieldConfiguration to)
    {
        var (before, after) = (Parts(from), Parts(to));
        var differences = new List<FieldDifference>();
        foreach (var (key, parts) in after)
        {
            if (!before.TryGetValue(key, out var old))
            {
                differences.Add(new FieldDifference(key, DifferenceKind.Added, []));
                continue;
            }
            var changed = old
                .Keys.Union(parts.Keys)
                .Where(p => Raw(old, p) != Raw(parts, p))
                .Select(p => new PartDifference(p, Raw(old, p), Raw(parts, p)))
                .ToList();
            if (changed.Count > 0)
                differences.Add(new FieldDifference(key, DifferenceKind.Changed, changed));
        }
        differences.AddRange(before.Keys.Where(k => !after.ContainsKey(k)).Select(k => new FieldDifference(k, DifferenceKind.Removed, [])));
        if (!before.Keys.Where(after.ContainsKey).SequenceEqual(after.Keys.Where(before.ContainsKey)))
            differences.Add(new FieldDifference(null, DifferenceKind.Moved, []));
        if (Sections(from) != Sections(to))
            differences.Add(new FieldDifference(null, DifferenceKind.Sections, []));
        if (Approvals(from) != Approvals(to))
            differences.Add(new FieldDifference(null, DifferenceKind.Approvals, []));
        return differences;
    }

    private static Dictionary<string, Dictionary<string, JsonElement>> Parts(FieldConfiguration configuration)
    {
        using var document = JsonDocument.Parse(configuration.Write());
        var fields = new Dictionary<string, Dictionary<string, JsonElement>>(StringComparer.Ordinal);
        foreach (var field in document.RootElement.GetProperty("fields").EnumerateArray())
            fields.TryAdd(field.GetProperty("key").GetString()!, field.EnumerateObject().ToDictionary(p => p.Name, p => p.Value.Clone()));
        return fields;
    }

    private static string Sections(FieldConfiguration configuration) => Written(configuration with { Fields = [], Approvals = [] });

    private static string Approvals(FieldConfiguration configuration) => Written(configuration with { Fields = [], Sections = [] });

    private static string Written(FieldConfiguration configuration) => Encoding.UTF8.GetString(configuration.Write());

    private static string? Raw(Dictionary<string, JsonElement> parts, string part) => parts.TryGetValue(part, out var value) ? value.GetRawText() : null;
}

/// <summary>What differs about a field.</summary>
/// <param name="Field">The field; null where it is about the order, the sections or the approvals.</param>
/// <param name="Kind">What happened to it.</param>
/// <param name="Parts">The parts that differ, where it was changed.</param>
public sealed record FieldDifference(string? Field, DifferenceKind Kind, IReadOnlyList<PartDifference> Parts)
{
    private static readonly HashSet<string> Counted = ["type", "of", "required", "requiredWhen", "showWhen", "default", "sensitive", "columns", "rowKey"];

    /// <summary>Whether what is missing or shown of a record, or the order in which that is told, can become other by it. What a field is
    /// called, who may see it and which values it takes do not count.</summary>
    [JsonIgnore]
    public bool CanChangeCompleteness =>
        Kind switch
        {
            DifferenceKind.Sections or DifferenceKind.Approvals => false,
            DifferenceKind.Changed => Parts.Any(p => Counted.Contains(p.Part)),
            _ => true,
        };
}

/// <summary>A part of a field before and after, as JSON; null where it was or is left out.</summary>
/// <param name="Part">The part's name, such as "required".</param>
/// <param name="Before">Before.</param>
/// <param name="After">After.</param>
public sealed record PartDifference(string Part, string? Before, string? After);

/// <summary>What can happen to a field between two configurations.</summary>
public enum DifferenceKind
{
    /// <summary>It is new.</summary>
    Added,

    /// <summary>Parts of it differ.</summary>
    Changed,

    /// <summary>It is gone.</summary>
    Removed,

    /// <summary>Fields stand in another order.</summary>
    Moved,

    /// <summary>The sections differ.</summary>
    Sections,

    /// <summary>Others are asked about changes.</summary>
    Approvals,
}
