namespace Fid.Core.Fields;

/// <summary>What is wrong with fields that are rows: without columns, with parts that columns cannot have, or whatever is wrong with a column
/// as a field of its own.</summary>
internal static class RowsFindings
{
    /// <summary>The most columns rows can have.</summary>
    public const int MostColumns = 20;

    public static void Find(ConfigurationCheck check)
    {
        for (var i = 0; i < check.Set.Fields.Count; i++)
        {
            var field = check.Set.Fields[i];
            if (field.Type != FieldType.Rows)
            {
                if (field.Columns is not null || field.RowKey is not null || field.Dates is not null)
                    check.Add(
                        i,
                        "not-rows",
                        $"{ConfigurationCheck.Name(field)} has columns, and is no rows. Make it rows, or leave them out.",
                        part: "columns"
                    );
                continue;
            }
            Whole(check, i, field);
            Columns(check, i, field);
        }
    }

    private static void Whole(ConfigurationCheck check, int at, FieldDefinition field)
    {
        var (name, columns) = (ConfigurationCheck.Name(field), field.Columns ?? []);
        if (columns.Count == 0)
            check.Add(at, "nothing-to-choose", $"{name} has no columns, so nothing could be entered. Add one.", part: "columns");
        if (columns.Count > MostColumns)
            check.Add(at, "too-many", $"{name} has {columns.Count} columns. Leave at most {MostColumns}.", part: "columns");
        if (field.RowKey is { } key)
            Named(check, at, field, key, "rowKey", _ => true);
        if (field.Dates is { } dates)
        {
            Named(check, at, field, dates.From, "dates/from", c => c.Type == FieldType.Date);
            Named(check, at, field, dates.Until, "dates/until", c => c.Type == FieldType.Date);
            if (dates.From == dates.Until)
                check.Add(at, "bad-value", $"The first and the last day of {name} are one column. Choose two.", part: "dates/until");
        }
        foreach (var part in NotOfRows(field))
            check.Add(at, "not-in-rows", $"{name} is rows, which have no {part.Word}. Leave it out.", part: part.Name);
    }

    private static IEnumerable<(string Name, string Word)> NotOfRows(FieldDefinition field)
    {
        if (field.Default is not null)
            yield return ("default", "default");
        if (field.OnChange.Count > 0)
            yield return ("onChange", "rules");
        if (field.Unique)
            yield return ("unique", "one value to be unique; a column can be");
        if (field.Sensitive)
            yield return ("sensitive", "one value to be sealed; a column can be");
        if (field.List is not null)
            yield return ("list", "list; a column can have one");
    }

    private static void Named(ConfigurationCheck check, int at, FieldDefinition field, string key, string part, Func<FieldDefinition, bool> fits)
    {
        var columns = field.Columns ?? [];
        if (columns.FirstOrDefault(c => c.Key == key) is not { } column)
            NameFindings.Unknown(
                check,
                at,
                "unknown-field",
                $"{ConfigurationCheck.Name(field)} speaks of the column “{key}”, which it has not.",
                key,
                columns.Select(c => c.Key),
                part
            );
        else if (!fits(column))
            check.Add(at, "bad-value", $"{ConfigurationCheck.Name(column)} is to say a day, and is no date. Choose a column that is.", part: part);
        else if (part == "rowKey" && column.Type is FieldType.Computed or FieldType.File or FieldType.LongText or FieldType.Choices)
            check.Add(at, "bad-value", $"{ConfigurationCheck.Name(column)} cannot say what a row is about. Choose a column with one short value.", part: part);
        else if (part == "rowKey" && column.Sensitive)
            check.Add(at, "bad-value", $"{ConfigurationCheck.Name(column)} is sealed, and cannot say what a row is about. Choose another.", part: part);
    }

    private static void Columns(ConfigurationCheck check, int at, FieldDefinition field)
    {
        var columns = field.Columns ?? [];
        var keys = columns.Select(c => c.Key).ToHashSet(StringComparer.OrdinalIgnoreCase);
        for (var c = 0; c < columns.Count; c++)
        {
            var (column, name) = (columns[c], ConfigurationCheck.Name(columns[c]));
            if (column.Type == FieldType.Rows)
                Add(c, "not-in-rows", $"{name} is a column, and cannot hold rows of its own. Choose another type.", "type");
            if (column.ShowWhen is not null)
                Add(c, "not-in-rows", $"{name} is a column, and is shown wherever the rows are. Leave the condition out.", "showWhen");
            if (column.OnChange.Count > 0)
                Add(c, "not-in-rows", $"{name} is a column, whose changes set nothing elsewhere. Leave the rules out.", "onChange");
        }
        // As fields of their own, in a record whose other fields their formulas may read.
        var whole = check.Question with
        {
            Fields =
            [
                .. columns.Select(c => c with { Access = field.AccessWithin(c), Section = $"{field.Section}/{field.Key}", ShowWhen = null, OnChange = [] }),
                .. check.Question.Fields.Where(f => !keys.Contains(f.Key)),
            ],
            Live = null,
        };
        foreach (var (place, finding) in ConfigurationCheck.OfColumns(whole, columns.Count))
            Add(place, finding.Code, finding.Message, finding.Part, finding);

        void Add(int column, string code, string message, string? part, Finding? whole = null) =>
            check.Add(
                at,
                new Finding(
                    code,
                    // The rows are what is opened; then what else it is about.
                    [field.Key, .. (whole?.Fields ?? [columns[column].Key]).Select(k => keys.Contains(k) ? FieldAddress.ColumnKey(field.Key, k) : k)],
                    message,
                    whole?.Suggestion,
                    part is null ? $"columns/{column}" : $"columns/{column}/{part}",
                    whole?.Character
                )
            );
    }
}
