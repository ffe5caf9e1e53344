using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>Values of fields, from JSON to what formulas compute with and back.</summary>
public static class FieldValues
{
    /// <summary>A JSON value as formulas have it: null, a text, a decimal, a bool, or a list of these; an object, which no field
    /// holds, as null.</summary>
    public static object? FromJson(JsonElement? value) =>
        value is not { } json
            ? null
            : json.ValueKind switch
            {
                JsonValueKind.String => json.GetString(),
                JsonValueKind.Number => json.TryGetDecimal(out var number) ? number : null,
                JsonValueKind.True => true,
                JsonValueKind.False => false,
                JsonValueKind.Array => json.EnumerateArray().Select(j => FromJson(j)).ToList(),
                _ => null,
            };

    /// <summary>A formula's value as JSON.</summary>
    public static JsonElement ToJson(object? value) =>
        value switch
        {
            null => JsonSerializer.SerializeToElement<object?>(null),
            List<object?> list => JsonSerializer.SerializeToElement(list),
            _ => JsonSerializer.SerializeToElement(value, value.GetType()),
        };

    /// <summary>The texts of a value: itself, or the members of a list; none of anything else.</summary>
    public static IEnumerable<string> Texts(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.String => [value.GetString()!],
            JsonValueKind.Array => value.EnumerateArray().Where(v => v.ValueKind == JsonValueKind.String).Select(v => v.GetString()!),
            _ => [],
        };

    /// <summary>A value with one text in it replaced by another: the whole of a text, or members of a list.</summary>
    public static JsonElement Replace(JsonElement value, string from, string to) =>
        value.ValueKind switch
        {
            JsonValueKind.String when value.GetString() == from => JsonSerializer.SerializeToElement(to),
            JsonValueKind.Array => JsonSerializer.SerializeToElement(Texts(value).Select(t => t == from ? to : t).Distinct(StringComparer.Ordinal)),
            _ => value,
        };

    /// <summary>Whether a value is none: null, a text of nothing but spaces, an empty list.</summary>
    public static bool IsEmpty(JsonElement? value) =>
        value is not { } json
        || json.ValueKind switch
        {
            JsonValueKind.Null or JsonValueKind.Undefined => true,
            JsonValueKind.String => string.IsNullOrWhiteSpace(json.GetString()),
            JsonValueKind.Array => json.GetArrayLength() == 0,
            _ => false,
        };
}
