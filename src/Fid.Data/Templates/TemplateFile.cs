using System.Text.Json;

namespace Fid.Data.Templates;

/// <summary>Role templates and add-ons as a JSON file.</summary>
public static class TemplateFile
{
    /// <summary>The templates of a file that Fid itself brings along.</summary>
    public static IReadOnlyList<RoleTemplate> Read(Stream stream)
    {
        using var document = JsonDocument.Parse(stream);
        return [.. document.RootElement.EnumerateArray().Select(Template)];
    }

    private static RoleTemplate Template(JsonElement json)
    {
        var when = json.TryGetProperty("when", out var w) ? w : (JsonElement?)null;
        return new RoleTemplate
        {
            Code = json.GetProperty("code").GetString()!,
            Name = json.GetProperty("name").GetString()!,
            Version = json.GetProperty("version").GetInt32(),
            Opens = json.TryGetProperty("opens", out var opens) && opens.GetBoolean(),
            BuildsOnCode = json.TryGetProperty("buildsOn", out var on) ? on.GetString() : null,
            Order = json.TryGetProperty("order", out var order) ? order.GetInt32() : 0,
            WhenField = when?.GetProperty("field").GetString(),
            WhenValue = when?.GetProperty("value").GetString(),
            Content = new TemplateContent(
                json.GetProperty("values").EnumerateObject().ToDictionary(p => p.Name, p => p.Value.Clone()),
                [.. json.GetProperty("tasks").EnumerateArray().Select(Task)]),
        };
    }

    private static TemplateTask Task(JsonElement json) => new(
        json.GetProperty("key").GetString()!,
        json.EnumerateObject().Where(p => p.Name is not ("key" or "drop")).ToDictionary(p => p.Name, p => p.Value.Clone()),
        json.TryGetProperty("drop", out var drop) && drop.GetBoolean());
}
