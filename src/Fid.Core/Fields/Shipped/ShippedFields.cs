namespace Fid.Core.Fields.Shipped;

/// <summary>The fields that ship with Fid. A firm relabels, hides or requires them and adds its own; it takes none of them away.</summary>
public static class ShippedFields
{
    /// <summary>The roles by which shipped fields say who sees and who edits them.</summary>
    public static IReadOnlyList<string> Roles { get; } = ["coordinator", "administrator", "payroll", "manager", "owner", "newcomer", "staff"];

    /// <summary>The sections, in order.</summary>
    public static IReadOnlyList<FieldSection> Sections { get; } =
    [
        new("person", ShippedField.Labels("Person", "Person")),
        new("contact", ShippedField.Labels("Contact", "Kontakt")),
        new("work", ShippedField.Labels("Work", "Arbeit")),
        new("pay", ShippedField.Labels("Pay", "Entgelt")),
        new("clock", ShippedField.Labels("Time clock", "Zeiterfassung")),
        new("certificates", ShippedField.Labels("Certificates", "Nachweise")),
        new("items", ShippedField.Labels("Items issued", "Ausgegebenes")),
        new("papers", ShippedField.Labels("Papers", "Unterlagen")),
    ];

    /// <summary>All fields, in the order they are shown.</summary>
    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        .. PersonFields.All,
        .. ContactFields.All,
        .. WorkFields.All,
        .. PayFields.All,
        .. ClockFields.All,
        .. CertificateFields.All,
        .. ItemFields.All,
        .. PaperFields.All,
    ];

    private static readonly Dictionary<string, FieldDefinition> ByKey = All.ToDictionary(f => f.Key, StringComparer.Ordinal);

    /// <summary>The field with a key, or null.</summary>
    public static FieldDefinition? Find(string key) => ByKey.GetValueOrDefault(key);
}
