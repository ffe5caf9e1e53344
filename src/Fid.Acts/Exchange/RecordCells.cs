using System.Text.Json;
using Fid.Core.Lists;

namespace Fid.Acts.Exchange;

/// <summary>What a line of a sheet would change in a record, as it is kept until it is put in.</summary>
internal static class RecordCells
{
    /// <summary>What was there, and how it reads before and after.</summary>
    /// <param name="held">What the record holds, by address.</param>
    /// <param name="entered">What the line says; null empties a value.</param>
    /// <param name="numberOf">Employee numbers by the ids of employments.</param>
    public static string Before(
        IReadOnlyDictionary<string, JsonElement> held,
        Dictionary<string, JsonElement?> entered,
        IReadOnlyDictionary<string, string> numberOf
    )
    {
        var values = entered.Keys.ToDictionary(k => k, k => held.TryGetValue(k, out var was) ? was : (JsonElement?)null);
        return JsonSerializer.Serialize(
            new
            {
                values,
                was = Texts(values),
                becomes = Texts(entered),
            }
        );

        Dictionary<string, string> Texts(Dictionary<string, JsonElement?> all) =>
            all.ToDictionary(v => v.Key, v => v.Value is { } value ? FieldCell.Write(value, numberOf.GetValueOrDefault) : "");
    }

    /// <summary>Whether two values, or none, are the same.</summary>
    public static bool Same(JsonElement? value, JsonElement? there) =>
        value is null ? there is null : there is not null && JsonElement.DeepEquals(value.Value, there.Value);
}
