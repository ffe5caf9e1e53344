using System.Buffers;
using Fid.Core.Texts;

namespace Fid.Core.Lists;

/// <summary>Checks an entry against its list's definition, and brings what it refers to into the form that is kept.</summary>
public static class EntryCheck
{
    /// <summary>The longest code, in characters.</summary>
    public const int LongestCode = 40;

    /// <summary>Stands for the firm's people where a value refers to one by employee number.</summary>
    public const string People = "people";

    private static readonly SearchValues<char> Separators = SearchValues.Create(",;/\\?#%");

    /// <summary>A code trimmed, and what is wrong with it.</summary>
    public static CellValue Code(string text)
    {
        if (!TextRules.TryClean(text, out var code))
            return CellValue.Wrong("bad-characters", TextRules.BadCharacters);
        if (code.Length == 0)
            return CellValue.Wrong("missing", "Fill this in.");
        if (code.Length > LongestCode)
            return CellValue.Wrong("too-long", $"Enter at most {LongestCode} characters.");
        return code.AsSpan().ContainsAny(Separators) || code.Trim('.').Length == 0
            ? CellValue.Wrong("bad-characters", "A code holds no , ; / \\ ? # or %.")
            : CellValue.Of(code);
    }

    /// <summary>A name trimmed, and what is wrong with it.</summary>
    public static CellValue Name(string text, bool required)
    {
        if (!TextRules.TryClean(text, out var name))
            return CellValue.Wrong("bad-characters", TextRules.BadCharacters);
        if (name.Length == 0)
            return required ? CellValue.Wrong("missing", "Fill this in.") : CellValue.Empty;
        return name.Length > TextRules.Longest ? CellValue.Wrong("too-long", $"Enter at most {TextRules.Longest} characters.") : CellValue.Of(name);
    }

    /// <summary>
    /// What a value refers to, found: codes and names of entries become the entries' own codes. Wrong where one is unknown.
    /// </summary>
    /// <param name="find">The code of an entry of a list by its code or name; null where there is none.</param>
    public static CellValue Refer(ListColumn column, CellValue value, Func<string, string, string?> find)
    {
        if (value.IsWrong || value.Value is null)
            return value;
        switch (column.Type)
        {
            case ColumnType.Entry:
                return find(column.List!, (string)value.Value) is { } code ? CellValue.Of(code) : Unknown((string)value.Value);
            case ColumnType.Entries:
                var codes = (string[])value.Value;
                for (var i = 0; i < codes.Length; i++)
                {
                    if (find(column.List!, codes[i]) is not { } found)
                        return Unknown(codes[i]);
                    codes[i] = found;
                }
                return CellValue.Of(codes.Distinct(StringComparer.Ordinal).ToArray());
            case ColumnType.Requirements:
                var needs = (Requirement[])value.Value;
                for (var i = 0; i < needs.Length; i++)
                {
                    if (find(column.List!, needs[i].Certificate) is not { } found)
                        return Unknown(needs[i].Certificate);
                    needs[i] = needs[i] with { Certificate = found };
                }
                return value;
            case ColumnType.Heads:
                foreach (var head in (HeadFrom[])value.Value)
                    if (head.Person is { } number && find(People, number) is null)
                        return CellValue.Wrong("unknown-person", $"Nobody has the employee number {number}.");
                return value;
            default:
                return value;
        }
    }

    /// <summary>What a value refers to: lists and codes.</summary>
    public static IEnumerable<(string List, string Code)> References(ListColumn column, object value) =>
        column.Type switch
        {
            ColumnType.Entry => [(column.List!, (string)value)],
            ColumnType.Entries => ((string[])value).Select(c => (column.List!, c)),
            ColumnType.Requirements => ((Requirement[])value).Select(n => (column.List!, n.Certificate)),
            _ => [],
        };

    /// <summary>The value with one entry that it refers to replaced by another.</summary>
    public static object Replace(ListColumn column, object value, string from, string to) =>
        column.Type switch
        {
            ColumnType.Entry => (string)value == from ? to : value,
            ColumnType.Entries => ((string[])value).Select(c => c == from ? to : c).Distinct(StringComparer.Ordinal).ToArray(),
            ColumnType.Requirements => ((Requirement[])value)
                .Select(n => n.Certificate == from ? n with { Certificate = to } : n)
                .DistinctBy(n => n.Certificate)
                .ToArray(),
            _ => value,
        };

    private static CellValue Unknown(string text) =>
        CellValue.Wrong("unknown-entry", $"There is no entry “{text}”. Choose one of the list, or add it there first.");
}
