using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Texts;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>
/// Values of record fields as cells of a sheet, and back. A person stands as their employee number, an entry of a list as its
/// code, several choices one after the other with semicolons between. Files, sealed and computed values have no cells.
/// </summary>
public static class FieldCell
{
    private static readonly char[] Between = [';', '\n'];

    /// <summary>Whether the values of a field can stand in a sheet. A sheet cannot keep a sealed value sealed.</summary>
    public static bool Has(FieldDefinition field) => !field.Sensitive && field.Type is not (FieldType.File or FieldType.Computed or FieldType.Rows);

    /// <summary>A field as a column of a sheet. What a cell may hold is said by the field, not by the column.</summary>
    public static ListColumn Column(FieldDefinition field) =>
        new(
            field.Key,
            field switch
            {
                { Type: FieldType.Choices, List: not null } => ColumnType.Entries,
                { Type: FieldType.Choices } => ColumnType.Text,
                { List: not null } => ColumnType.Entry,
                { Type: FieldType.Choice } => ColumnType.Choice,
                { Type: FieldType.LongText } => ColumnType.LongText,
                { Type: FieldType.Number or FieldType.Money } => ColumnType.Number,
                { Type: FieldType.Date } => ColumnType.Date,
                { Type: FieldType.YesNo } => ColumnType.YesNo,
                { Type: FieldType.Phone } => ColumnType.Phone,
                _ => ColumnType.Text,
            },
            new Label(field.Label("en"), field.Label("de")),
            new Label("", ""),
            List: field.List,
            Options: field.Options?.Where(o => !o.Retired).Select(o => new ColumnOption(o.Value, new Label(o.Label("en"), o.Label("de")))).ToArray()
        );

    /// <summary>The value of a cell, as it is stored; null for an empty one.</summary>
    /// <param name="field">The field it is for.</param>
    /// <param name="text">The cell.</param>
    /// <param name="style">How the sheet writes dates and numbers.</param>
    /// <param name="find">The stored form of what a cell refers to: the code of an entry by list and code or name, the id of an
    /// employment by <see cref="EntryCheck.People"/> and number; null where there is none.</param>
    public static (JsonElement? Value, Problem? Problem) Read(FieldDefinition field, string text, CellStyle style, Func<string, string, string?> find)
    {
        text = text.Trim();
        if (text.Length == 0)
            return (null, null);
        switch (field.Type)
        {
            case FieldType.Number or FieldType.Money:
                return CellText.Number(text, style) is { } number ? Checked(number) : Wrong("wrong-type", "Enter a number.");
            case FieldType.Date:
                return CellText.Date(text, style) is { } date
                    ? Checked(LocalDatePattern.Iso.Format(date))
                    : Wrong("bad-date", "Enter a date, such as 2027-03-22.");
            case FieldType.YesNo:
                return CellText.YesNo(text) is { } yes ? Checked(yes) : Wrong("bad-value", "Enter yes or no.");
            case FieldType.Person:
                return find(EntryCheck.People, text) is { } person ? Checked(person) : Wrong("unknown-person", $"Nobody has the employee number {text}.");
            case FieldType.Choices:
                var parts = text.Split(Between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
                var chosen = new string[parts.Length];
                for (var i = 0; i < parts.Length; i++)
                {
                    if (Chosen(parts[i]) is not { } known)
                        return Unknown(parts[i]);
                    chosen[i] = known;
                }
                return Checked(chosen);
            case FieldType.Choice or FieldType.ListEntry:
                return Chosen(text) is { } one ? Checked(one) : Unknown(text);
            default:
                return Checked(text);
        }

        (JsonElement?, Problem?) Checked<T>(T value) => ValueCheck.Check(field, JsonSerializer.SerializeToElement(value));
        (JsonElement?, Problem?) Wrong(string code, string message) => (null, new Problem($"/{field.Key}", code, message));
        (JsonElement?, Problem?) Unknown(string said) =>
            field.List is not null
                ? Wrong("unknown-entry", $"There is no entry “{said}”. Choose one of the list, or add it there first.")
                : Wrong("bad-value", $"Choose one of {string.Join(", ", field.Options!.Where(o => !o.Retired).Take(12).Select(o => o.Label("en")))}.");
        string? Chosen(string said) => field.List is { } list ? find(list, said) : Option(field, said);
    }

    /// <summary>A stored value as a cell, readable again by <see cref="Read"/> in Fid's own style.</summary>
    /// <param name="numberOf">The employee number of an employment's id; null where there is none.</param>
    public static string Write(JsonElement value, Func<string, string?> numberOf) =>
        value.ValueKind switch
        {
            JsonValueKind.Number => CellText.Plain(value.GetDecimal()),
            JsonValueKind.True => "yes",
            JsonValueKind.False => "no",
            JsonValueKind.Array => string.Join("; ", FieldValues.Texts(value)),
            JsonValueKind.String => value.GetString()! is var text && numberOf(text) is { } number ? number : value.GetString()!,
            _ => "",
        };

    // By value or label, in any language and any capitals.
    private static string? Option(FieldDefinition field, string said) =>
        NamedChoice.Find([.. (field.Options ?? []).Select(o => new NamedChoice(o.Value, o.Labels.Values))], said);
}
