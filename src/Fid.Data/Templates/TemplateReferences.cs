using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data.Fields;
using Fid.Data.Hires;

namespace Fid.Data.Templates;

/// <summary>What a template refers to in the firm's lists: values of fields that hold entries, the teams and calendars of tasks,
/// and what an add-on's condition compares with.</summary>
public static class TemplateReferences
{
    /// <summary>The codes of entries of a list that a template refers to.</summary>
    public static IEnumerable<string> Of(RoleTemplate template, string list, LiveFields fields)
    {
        foreach (var (field, value) in template.Content.Values)
            if (fields.ListOf(field) == list)
                foreach (var code in FieldValues.Texts(value)) yield return code;
        if (template.WhenField is { } when && fields.ListOf(when) == list && template.WhenValue is { } compared) yield return compared;
        foreach (var properties in template.Content.Tasks.Select(t => t.Properties))
        {
            if (list == "teams" && Property(properties, "owner") is { } owner && owner.StartsWith(HireTask.TeamPrefix, StringComparison.Ordinal))
                yield return owner[HireTask.TeamPrefix.Length..];
            if (list == "calendars" && Property(properties, "calendar") is { } calendar && calendar != HireTask.OwnCalendar) yield return calendar;
        }
    }

    /// <summary>Replaces one entry by another wherever the template refers to it. It becomes a new version.</summary>
    public static void Replace(RoleTemplate template, string list, string from, string to, LiveFields fields)
    {
        var values = template.Content.Values.ToDictionary(
            v => v.Key, v => fields.ListOf(v.Key) == list ? FieldValues.Replace(v.Value, from, to) : v.Value);
        var tasks = template.Content.Tasks.Select(t => t with
        {
            Properties = t.Properties.ToDictionary(p => p.Key, p => p.Key switch
            {
                "owner" when list == "teams" && Text(p.Value) == HireTask.TeamPrefix + from => JsonSerializer.SerializeToElement(HireTask.TeamPrefix + to),
                "calendar" when list == "calendars" && Text(p.Value) == from => JsonSerializer.SerializeToElement(to),
                _ => p.Value,
            }),
        });
        template.Content = new TemplateContent(values, [.. tasks]);
        if (template.WhenField is { } when && fields.ListOf(when) == list && template.WhenValue == from) template.WhenValue = to;
        template.Version++;
    }

    private static string? Property(IReadOnlyDictionary<string, JsonElement> properties, string name) =>
        properties.TryGetValue(name, out var value) ? Text(value) : null;

    private static string? Text(JsonElement value) => value.ValueKind == JsonValueKind.String ? value.GetString() : null;
}
