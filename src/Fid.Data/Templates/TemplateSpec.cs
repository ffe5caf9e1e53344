using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Core.Checklists;
using Fid.Core.Formulas;
using Fid.Core.Json;
using Fid.Core.Templates;

namespace Fid.Data.Templates;

/// <summary>What one version of a role template or an add-on says.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="AddOn">Whether it applies to some hires besides their template, rather than being one.</param>
/// <param name="BuildsOn">The code of the template it builds on; null for none, and for add-ons.</param>
/// <param name="When">For an add-on: the condition as a formula; null where it applies to everybody.</param>
/// <param name="Order">Add-ons apply in this order.</param>
/// <param name="Opens">Whether hires can be opened from it; other templates are only built on.</param>
/// <param name="Values">Record values by field key; an object with the one property "formula" is a formula.</param>
/// <param name="Lists">By the name of a list, one of <see cref="TemplateLists.All"/>, what it says of the entries.</param>
/// <param name="NameDe">What it is called in German, where that differs.</param>
/// <param name="Occasion">What it is for. One for anything but an arrival has tasks alone; it builds on, and add-ons apply to, those of the same.</param>
public sealed record TemplateSpec(
    string Name,
    bool AddOn,
    string? BuildsOn,
    string? When,
    int Order,
    bool Opens,
    IReadOnlyDictionary<string, JsonElement> Values,
    IReadOnlyDictionary<string, IReadOnlyList<TemplateEntry>> Lists,
    string? NameDe = null,
    Occasion Occasion = Occasion.Arrival
)
{
    private const string Formula = "formula";

    private LayerContent? _layer;

    /// <summary>How it is kept in the database and in files.</summary>
    public static JsonSerializerOptions Json { get; } =
        new(JsonSerializerDefaults.Web)
        {
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault,
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        };

    /// <summary>What it sets, as a layer.</summary>
    [JsonIgnore]
    public LayerContent Layer =>
        _layer ??= new LayerContent(
            Values.ToDictionary(v => v.Key, v => Value(v.Value), StringComparer.Ordinal),
            Lists.ToDictionary(
                l => l.Key,
                l => (IReadOnlyList<LayerEntry>)[.. l.Value.Select(e => new LayerEntry(e.Key, e.Properties, e.Drop))],
                StringComparer.Ordinal
            )
        );

    /// <summary>The condition of an add-on; null where it applies to everybody, or cannot be read.</summary>
    [JsonIgnore]
    public RecordFormula? Condition => When is null ? null : RecordFormula.Read(When).Formula;

    /// <summary>What it says of the entries of a list.</summary>
    public IReadOnlyList<TemplateEntry> Entries(string list) => Lists.GetValueOrDefault(list) ?? [];

    /// <summary>The formula that a value is; null for a value as it stands.</summary>
    public static string? FormulaOf(JsonElement value) =>
        value.ValueKind == JsonValueKind.Object && value.EnumerateObject().ToList() is [{ Name: Formula } only] && only.Value.ValueKind == JsonValueKind.String
            ? only.Value.GetString()
            : null;

    private static LayerValue Value(JsonElement value) =>
        FormulaOf(value) is { } text && RecordFormula.Read(text).Formula is { } formula
            ? new LayerValue(JsonValues.Null, formula)
            : new LayerValue(value, null);
}

/// <summary>What a template says of an entry of one of its lists.</summary>
/// <param name="Key">By which layers mean the same one.</param>
/// <param name="Properties">What it sets; the rest stays as lower layers have it.</param>
/// <param name="Drop">Whether it takes the entry away.</param>
/// <param name="Shared">The key of the firm's shared task it is taken from, whose changes it follows; null for its own.</param>
public sealed record TemplateEntry(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false, string? Shared = null)
{
    /// <summary>Of a task or a stage: the condition that decides whether it applies, as a formula; null where it says none.</summary>
    [JsonIgnore]
    public string? Condition => Properties.TryGetValue("when", out var when) && when.ValueKind == JsonValueKind.String ? when.GetString() : null;

    /// <summary>Of a task: the fields that it sets by itself, as far as they can be read.</summary>
    [JsonIgnore]
    public IReadOnlyList<FieldSetting> Sets => Properties.TryGetValue(SetsProperty, out var sets) ? SettingsOf(sets) : [];

    /// <summary>The fields that a property of a task sets, as far as they can be read.</summary>
    public static IReadOnlyList<FieldSetting> SettingsOf(JsonElement sets) =>
        sets.ValueKind == JsonValueKind.Array ? [.. sets.EnumerateArray().Select(SettingOf).OfType<FieldSetting>()] : [];

    /// <summary>The same with other fields set; with none, it says nothing of them.</summary>
    public TemplateEntry With(IReadOnlyList<FieldSetting> sets)
    {
        var properties = new Dictionary<string, JsonElement>(Properties, StringComparer.Ordinal);
        if (sets.Count > 0)
            properties[SetsProperty] = JsonSerializer.SerializeToElement(sets, TemplateSpec.Json);
        else
            properties.Remove(SetsProperty);
        return this with { Properties = properties };
    }

    /// <summary>The property of a task that says what it sets.</summary>
    public const string SetsProperty = "sets";

    private static FieldSetting? SettingOf(JsonElement setting) =>
        setting.ValueKind == JsonValueKind.Object
        && setting.TryGetProperty("field", out var field)
        && field.ValueKind == JsonValueKind.String
        && setting.TryGetProperty("formula", out var formula)
        && formula.ValueKind == JsonValueKind.String
            ? new FieldSetting(field.GetString()!, formula.GetString()!)
            : null;
}
