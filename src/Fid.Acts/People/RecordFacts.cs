using System.Text.Json;
using Fid.Core.Fields;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.People;

/// <summary>Single values of a record, by the keys of their fields.</summary>
public static class RecordFacts
{
    /// <summary>A text; null where there is none, or something else.</summary>
    public static string? Text(this IReadOnlyDictionary<string, JsonElement?> values, string field) =>
        values.TryGetValue(field, out var value) && value is { ValueKind: JsonValueKind.String } text ? text.GetString() : null;

    /// <summary>The cells in the rows of a field that hold something, by address.</summary>
    public static Dictionary<string, JsonElement> RowsOf(this IReadOnlyDictionary<string, JsonElement?> values, string field) =>
        values
            .Where(v => v.Value is not null && FieldAddress.IsInRow(v.Key) && FieldAddress.Read(v.Key).Whole == field)
            .ToDictionary(v => v.Key, v => v.Value!.Value, StringComparer.Ordinal);

    /// <summary>A day (ISO 8601); null where there is none, or something else.</summary>
    public static LocalDate? Day(this IReadOnlyDictionary<string, JsonElement?> values, string field) =>
        values.Text(field) is { } text && LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : null;

    /// <summary>A number; null where there is none, or something else.</summary>
    public static decimal? Number(this IReadOnlyDictionary<string, JsonElement?> values, string field) =>
        values.TryGetValue(field, out var value) && value is { ValueKind: JsonValueKind.Number } number ? number.GetDecimal() : null;
}
