using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>Writes field definitions as JSON, the way <see cref="FieldReader"/> reads them. The names in an object of names are written in
/// ordinal order: two definitions that say the same are written alike, whatever order a database or a browser keeps.</summary>
internal static class FieldWriter
{
    public static void Write(Utf8JsonWriter writer, FieldDefinition field)
    {
        writer.WriteStartObject();
        writer.WriteString("key", field.Key);
        if (field.Labels.Count > 0)
            Labels(writer, field.Labels);
        if (field.Section.Length > 0)
            writer.WriteString("section", field.Section);
        writer.WriteString("type", FieldReader.Types.Word((int)field.Type));
        if (field.Of != FieldOwner.Employment)
            writer.WriteString("of", FieldReader.Owners.Word((int)field.Of));
        if (field.Options is { } options)
            Items(writer, "options", options, Option);
        Text(writer, "list", field.List);
        Text(writer, "parent", field.Parent);
        Required(writer, field.Required);
        Text(writer, "requiredWhen", field.RequiredWhen);
        if (field.Access.Count > 0)
        {
            writer.WriteStartObject("access");
            foreach (var (role, access) in field.Access.OrderBy(a => a.Key, StringComparer.Ordinal))
                writer.WriteString(role, FieldReader.Accesses.Word((int)access));
            writer.WriteEndObject();
        }
        Default(writer, field.Default);
        Text(writer, "pattern", field.Pattern);
        Limit(writer, "min", field.Min);
        Limit(writer, "max", field.Max);
        if (field.Unique)
            writer.WriteBoolean("unique", true);
        if (field.OnChange.Count > 0)
            Items(writer, "onChange", field.OnChange, Rule);
        Text(writer, "showWhen", field.ShowWhen);
        if (field.Sensitive)
            writer.WriteBoolean("sensitive", true);
        if (field.Accepts is { } groups)
            Items(writer, "accepts", groups, (w, group) => w.WriteStringValue(FieldReader.FileGroups.Word((int)group)));
        if (field.Columns is { } columns)
            Items(writer, "columns", columns, Write);
        Text(writer, "rowKey", field.RowKey);
        if (field.Dates is { } dates)
        {
            writer.WriteStartObject("dates");
            writer.WriteString("from", dates.From);
            writer.WriteString("until", dates.Until);
            writer.WriteEndObject();
        }
        writer.WriteEndObject();
    }

    public static void Labels(Utf8JsonWriter writer, IReadOnlyDictionary<string, string> labels)
    {
        writer.WriteStartObject("label");
        foreach (var (language, label) in labels.OrderBy(l => l.Key, StringComparer.Ordinal))
            writer.WriteString(language, label);
        writer.WriteEndObject();
    }

    private static void Option(Utf8JsonWriter writer, FieldOption option)
    {
        writer.WriteStartObject();
        writer.WriteString("value", option.Value);
        if (option.Labels.Count > 0)
            Labels(writer, option.Labels);
        if (option.Retired)
            writer.WriteBoolean("retired", true);
        if (option.Within is { } within)
            Items(writer, "within", within, (w, value) => w.WriteStringValue(value));
        writer.WriteEndObject();
    }

    private static void Rule(Utf8JsonWriter writer, ChangeRule rule)
    {
        writer.WriteStartObject();
        writer.WriteString("set", rule.Set);
        writer.WriteString("formula", rule.Formula);
        writer.WriteEndObject();
    }

    private static void Required(Utf8JsonWriter writer, Requirement required)
    {
        if (required.Kind == RequirementKind.Always)
            writer.WriteString("required", "always");
        if (required.Kind != RequirementKind.From)
            return;
        writer.WriteStartObject("required");
        writer.WriteString("from", required.Stage);
        writer.WriteEndObject();
    }

    private static void Default(Utf8JsonWriter writer, FieldDefault? start)
    {
        if (start is null)
            return;
        writer.WriteStartObject("default");
        if (start.Formula is { } formula)
            writer.WriteString("formula", formula);
        else
        {
            writer.WritePropertyName("value");
            start.Value!.Value.WriteTo(writer);
        }
        writer.WriteEndObject();
    }

    private static void Limit(Utf8JsonWriter writer, string name, FieldLimit? limit)
    {
        if (limit?.Number is { } number)
            writer.WriteNumber(name, number);
        else if (limit?.Date is { } date)
            writer.WriteString(name, date);
    }

    private static void Text(Utf8JsonWriter writer, string name, string? text)
    {
        if (text is not null)
            writer.WriteString(name, text);
    }

    private static void Items<T>(Utf8JsonWriter writer, string name, IReadOnlyList<T> items, Action<Utf8JsonWriter, T> write)
    {
        writer.WriteStartArray(name);
        foreach (var item in items)
            write(writer, item);
        writer.WriteEndArray();
    }
}
