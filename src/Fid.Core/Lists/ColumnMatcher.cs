using Fid.Core.Texts;

namespace Fid.Core.Lists;

/// <summary>Finds out which column of a sheet is which column of a list: by its header in any language or another word for it, by
/// nearest spelling in the reader's language, and by what stands in it.</summary>
public static class ColumnMatcher
{
    // Among short words, one wrong letter makes another word.
    private const int ShortestAlike = 6;

    /// <summary>The headers that lead to a column: its key, its labels, and other words for it.</summary>
    public static IEnumerable<(string Spelling, string Key)> Spellings(ListDefinition list)
    {
        (string Key, string[] Spellings)[] fixedColumns =
        [
            (EntryReader.Code, ["code", "id", "number", "key", "Nummer", "Kürzel", "Employee number", "Personalnummer"]),
            (EntryReader.Name, ["name", "title", "label", "description", "Bezeichnung", "Titel"]),
            (EntryReader.NameDe, ["name_de", "Name in German", "Name auf Deutsch", "German name"]),
        ];
        foreach (var (key, spellings) in list.HasNames ? fixedColumns : fixedColumns[..1])
        foreach (var spelling in spellings)
            yield return (spelling, key);
        // "Job code" among jobs.
        foreach (var word in new[] { "code", "number", "id" })
            yield return ($"{list.Label.En.TrimEnd('s')} {word}", EntryReader.Code);
        foreach (var column in list.Columns)
        {
            yield return (column.Key, column.Key);
            foreach (var label in column.Label.All)
                yield return (label, column.Key);
        }
        // What a column is called goes before what it might be called.
        foreach (var column in list.Columns)
        foreach (var word in ColumnWords.For(column.Key))
            yield return (word, column.Key);
    }

    // What a header is compared with letter by letter: German words look like English ones and mean something else.
    private static IEnumerable<(string Spelling, string Key)> InLanguage(ListDefinition list, string language)
    {
        foreach (var (spelling, key) in Spellings(list with { Columns = [] }))
            yield return (spelling, key);
        foreach (var column in list.Columns)
        {
            yield return (column.Label.In(language), column.Key);
            if (language == "en")
                yield return (column.Key, column.Key);
        }
    }

    /// <summary>Matches headers to columns. A column is given once, to the header that fits best.</summary>
    /// <param name="list">The list.</param>
    /// <param name="headers">The sheet's headers.</param>
    /// <param name="sample">Some rows of cells, for headers that say nothing.</param>
    /// <param name="isEntry">Whether a text is an entry of a list.</param>
    /// <param name="language">The reader's language, in which headers may be misspelt.</param>
    /// <returns>For each header the key of its column; null for none.</returns>
    public static IReadOnlyList<ColumnMatch> Match(
        ListDefinition list,
        IReadOnlyList<string> headers,
        IReadOnlyList<string[]> sample,
        Func<string, string, bool> isEntry,
        string language
    )
    {
        var spellings = Spellings(list).Select(s => (Bare(s.Spelling), s.Key)).ToArray();
        var matches = new ColumnMatch[headers.Count];
        var taken = new HashSet<string>(StringComparer.Ordinal);
        Take(MatchedBy.Header, header => spellings.FirstOrDefault(s => s.Item1 == Bare(header)).Key);
        var alike = InLanguage(list, language).Select(s => (Spelling: Bare(s.Spelling), s.Key)).Where(s => s.Spelling.Length >= ShortestAlike).ToArray();
        Take(MatchedBy.Spelling, header =>
            Bare(header) is { Length: >= ShortestAlike } bare ? Nearest.Find(bare, alike.Where(s => !taken.Contains(s.Key))) : null
        );
        for (var i = 0; i < headers.Count; i++)
        {
            if (matches[i] is { Column: not null })
                continue;
            var cells = sample.Where(r => i < r.Length && r[i].Trim().Length > 0).Select(r => r[i]).ToArray();
            var fitting =
                cells.Length == 0
                    ? []
                    : list.Columns.Where(c => !taken.Contains(c.Key) && IsTelling(c.Type) && cells.All(cell => Fits(c, cell, isEntry))).ToArray();
            matches[i] = fitting is [var only] && taken.Add(only.Key) ? new ColumnMatch(only.Key, MatchedBy.Content) : new ColumnMatch(null, MatchedBy.Nothing);
        }
        return matches;

        void Take(MatchedBy how, Func<string, string?> find)
        {
            for (var i = 0; i < headers.Count; i++)
                if (matches[i] is not { Column: not null } && headers[i].Trim().Length > 0 && find(headers[i]) is { } key && taken.Add(key))
                    matches[i] = new ColumnMatch(key, how);
        }
    }

    /// <summary>A header without case, accents, punctuation and what stands in brackets.</summary>
    internal static string Bare(string header)
    {
        var open = header.IndexOf('(', StringComparison.Ordinal);
        var text = TextRules.Fold(open > 0 ? header[..open] : header);
        return string.Concat(text.Where(c => char.IsLetterOrDigit(c)));
    }

    // Text fits anything, so it tells nothing.
    private static bool IsTelling(ColumnType type) =>
        type
            is ColumnType.Date
                or ColumnType.Entry
                or ColumnType.Choice
                or ColumnType.TimeZone
                or ColumnType.Country
                or ColumnType.Currency
                or ColumnType.RestDays
                or ColumnType.Bands
                or ColumnType.Holidays
                or ColumnType.Shifts
                or ColumnType.Brackets
                or ColumnType.Rates;

    private static bool Fits(ListColumn column, string cell, Func<string, string, bool> isEntry) =>
        column.Type switch
        {
            ColumnType.Entry => isEntry(column.List!, cell),
            ColumnType.Date => CellText.Date(cell, CellStyle.Own) is not null || CellText.Orders(cell) is not (false, false),
            _ => !ColumnValue.FromText(column, cell, CellStyle.Own).IsWrong,
        };
}

/// <summary>The column of a list that a column of a sheet is.</summary>
/// <param name="Column">The column's key; null for none.</param>
/// <param name="By">How that was found out.</param>
public sealed record ColumnMatch(string? Column, MatchedBy By);

/// <summary>How a column was recognised.</summary>
public enum MatchedBy
{
    /// <summary>It was not.</summary>
    Nothing,

    /// <summary>By its header.</summary>
    Header,

    /// <summary>By a header that is nearly right.</summary>
    Spelling,

    /// <summary>By what stands in it.</summary>
    Content,

    /// <summary>As it was matched the last time for these headers.</summary>
    Memory,

    /// <summary>By somebody who said so.</summary>
    Hand,
}
