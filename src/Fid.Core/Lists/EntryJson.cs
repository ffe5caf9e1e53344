using System.Buffers;
using System.Text;
using System.Text.Json;

namespace Fid.Core.Lists;

/// <summary>The values of an entry as JSON, which is how they are kept.</summary>
public static class EntryJson
{
    /// <summary>The values as an object by column key, columns in the list's order.</summary>
    public static string Write(ListDefinition list, IReadOnlyDictionary<string, object> values)
    {
        var buffer = new ArrayBufferWriter<byte>(256);
        using (var writer = new Utf8JsonWriter(buffer, new JsonWriterOptions { SkipValidation = true }))
        {
            writer.WriteStartObject();
            foreach (var column in list.Columns)
            {
                if (!values.TryGetValue(column.Key, out var value))
                    continue;
                writer.WritePropertyName(column.Key);
                ColumnValue.Write(writer, value);
            }
            writer.WriteEndObject();
        }
        return Encoding.UTF8.GetString(buffer.WrittenSpan);
    }

    /// <summary>Values as they were kept. What the list no longer has, or can no longer read, is left out.</summary>
    public static IReadOnlyDictionary<string, object> Read(ListDefinition list, string json)
    {
        using var document = JsonDocument.Parse(json);
        var values = new Dictionary<string, object>(StringComparer.Ordinal);
        foreach (var property in document.RootElement.EnumerateObject())
            if (list.Find(property.Name) is { } column && ColumnValue.FromJson(column, property.Value).Value is { } value)
                values[property.Name] = value;
        return values;
    }
}
