using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Fields.Shipped;
using Fid.Core.PayElements;

namespace Fid.Acts.FieldDrafts;

/// <summary>The fields that stood for one certificate, one item or one allowance before records had rows of them, and what becomes of each.</summary>
/// <param name="Key">The field.</param>
/// <param name="Rows">The rows its values go into.</param>
/// <param name="Column">The column that takes the value; null where the value itself says what the rows are about.</param>
/// <param name="Entry">The entry of a list that a row is about, where the value does not say it.</param>
/// <param name="About">What a row is about, where neither the value nor a list says it.</param>
internal sealed record CarriedField(string Key, string Rows, string? Column, CarriedEntry? Entry, string? About = null)
{
    public static IReadOnlyList<CarriedField> All { get; } =
    [
        new("certificates_held", "certificates", null, null),
        new("medical_until", "certificates", "until", new("MEDICAL", "Medical fitness", "Tauglichkeit", ["medical-fitness", "med"])),
        new("first_aid_until", "certificates", "until", new("FIRST-AID", "First aid", "Erste Hilfe", ["firstaid", "aid"])),
        new("items_held", "items", null, null),
        new("locker", "items", "serial", new("LOCKER", "Locker", "Spind", ["locker-key", "Locker key"])),
        new("keys", "items", "serial", new("KEYS", "Keys", "Schlüssel", ["key"])),
        new("laptop", "items", "serial", new("LAPTOP", "Laptop", "Laptop", [])),
        new("radio", "items", "serial", new("RADIO", "Radio", "Funkgerät", [])),
        new("allowance", PayElementRows.Field, "amount", null, "allowance"),
        new("allowance_for", PayElementRows.Field, "note", null, "allowance"),
    ];

    /// <summary>A configuration with the rows in place of the fields they take in. A field that formulas or other fields speak of stays, and so does
    /// everything where the firm has a field of its own by the name of the rows.</summary>
    public static FieldConfiguration Replace(FieldConfiguration configuration)
    {
        var fields = configuration.Fields.ToList();
        foreach (var rows in All.Select(c => c.Rows).Distinct())
        {
            if (fields.Exists(f => f.Key == rows))
                continue;
            var gone = All.Where(c => c.Rows == rows).Select(c => c.Key).ToHashSet();
            // What speaks of another stays only where it is spoken of itself.
            while (gone.RemoveWhere(key => IsSpokenOf(key, fields, gone)) > 0) { }
            var at = fields.FindIndex(f => gone.Contains(f.Key));
            fields.RemoveAll(f => gone.Contains(f.Key));
            var shipped = ShippedFields.Find(rows)!;
            if (configuration.Sections.All(s => s.Key != shipped.Section))
                shipped = shipped with { Section = configuration.Sections.Count > 0 ? configuration.Sections[0].Key : "" };
            fields.Insert(at < 0 ? fields.Count : Math.Min(at, fields.Count), shipped);
        }
        return configuration with { Fields = fields };
    }

    private static bool IsSpokenOf(string key, List<FieldDefinition> fields, HashSet<string> gone) =>
        FieldSet.Read(fields, []).Answer is { } set
        && fields.Exists(f =>
            f.Key != key && !gone.Contains(f.Key) && (f.Parent == key || set.Reads(f.Key).Contains(key) || f.OnChange.Any(r => r.Set == key))
        );

    /// <summary>The rows that a value comes to: what each is about, and the value of <see cref="Column"/> in it.</summary>
    /// <param name="code">The code of <see cref="Entry"/> in the firm's list.</param>
    public IEnumerable<(string About, JsonElement? Value)> RowsOf(JsonElement value, string? code) =>
        Column is null ? FieldValues.Texts(value).Distinct(StringComparer.Ordinal).Select(about => (about, (JsonElement?)null)) : [(About ?? code!, value)];
}

/// <summary>An entry of the list that rows are about.</summary>
/// <param name="Code">Its code where the firm has none like it.</param>
/// <param name="Others">Further codes and names by which the firm may have it.</param>
internal sealed record CarriedEntry(string Code, string Name, string NameDe, IReadOnlyList<string> Others);
