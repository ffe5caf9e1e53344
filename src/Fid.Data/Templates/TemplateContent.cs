using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Core.Formulas;
using Fid.Core.Templates;

namespace Fid.Data.Templates;

/// <summary>What a template sets: record values by field key, and tasks by key, property by property.</summary>
/// <param name="Values">Values as they stand; an object with the one property "formula" is a formula.</param>
public sealed record TemplateContent(
    IReadOnlyDictionary<string, JsonElement> Values,
    IReadOnlyList<TemplateTask> Tasks)
{
    private const string Formula = "formula";

    private LayerContent? _layer;

    /// <summary>How content is kept in the database.</summary>
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web);

    /// <summary>The content as a layer.</summary>
    [JsonIgnore]
    public LayerContent Layer => _layer ??= new LayerContent(
        Values.ToDictionary(v => v.Key, v => Value(v.Value), StringComparer.Ordinal), [.. Tasks.Select(t => new LayerEntry(t.Key, t.Properties, t.Drop))], [], []);

    private static LayerValue Value(JsonElement value) =>
        value.ValueKind == JsonValueKind.Object && value.TryGetProperty(Formula, out var text) && RecordFormula.Read(text.GetString()!).Formula is { } formula
            ? new LayerValue(JsonElement.Parse("null"), formula)
            : new LayerValue(value, null);
}

/// <summary>What a template says about one task.</summary>
public sealed record TemplateTask(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false);
