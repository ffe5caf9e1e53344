using Fid.Core.Fields;

namespace Fid.Acts.Templates;

/// <summary>Which fields of the record a template may set.</summary>
public static class TemplateFields
{
    /// <summary>Whether a template may set a field: not what is computed, sealed, given as a file, nobody else's, or a person's own
    /// fact, such as a name, which no template can know.</summary>
    public static bool MaySet(FieldDefinition field) =>
        field is { Unique: false, Sensitive: false, Key: not ("start_date" or "badge") }
        && field.Type is not (FieldType.Computed or FieldType.File or FieldType.Rows)
        && (field.Of == FieldOwner.Employment || field.IsChosen || field.Type is FieldType.YesNo or FieldType.Number);
}
