using System.Text.Json;

namespace Fid.Data.Templates;

/// <summary>What a template sets: record values by field key, and tasks by key, property by property.</summary>
public sealed record TemplateContent(
    IReadOnlyDictionary<string, JsonElement> Values,
    IReadOnlyList<TemplateTask> Tasks)
{
    /// <summary>How content is kept in the database.</summary>
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web);
}

/// <summary>What a template says about one task.</summary>
public sealed record TemplateTask(string Key, IReadOnlyDictionary<string, JsonElement> Properties, bool Drop = false);
