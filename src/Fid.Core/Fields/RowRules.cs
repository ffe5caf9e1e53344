using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>What holds for rows as wholes: how many there may be, that each says what it is about, and that none ends before it begins.</summary>
public static class RowRules
{
    /// <summary>The most rows a record has of one field.</summary>
    public const int MostRows = 200;

    /// <summary>What is wrong with the rows that were touched; the paths are a slash and the address of the cell to mend, or of the row.</summary>
    /// <param name="set">The fields.</param>
    /// <param name="values">All the record would hold, by address.</param>
    /// <param name="touched">The addresses that were entered.</param>
    public static IEnumerable<Problem> Problems(FieldSet set, IReadOnlyDictionary<string, JsonElement> values, IEnumerable<string> touched)
    {
        var rows = touched.Where(FieldAddress.IsInRow).Select(FieldAddress.Read).DistinctBy(a => (a.Whole, a.Row)).ToList();
        if (rows.Count == 0)
            return [];
        var held = values.Keys.Where(FieldAddress.IsInRow).Select(FieldAddress.Read).DistinctBy(a => (a.Whole, a.Row)).ToLookup(a => a.Whole, a => a.Row!);
        return rows.SelectMany(at => Problems(set, values, at, held));
    }

    private static IEnumerable<Problem> Problems(FieldSet set, IReadOnlyDictionary<string, JsonElement> values, FieldAddress at, ILookup<string, string> held)
    {
        // One that was taken away is in order.
        if (set.Find(at.Whole) is not { } field || !held[at.Whole].Contains(at.Row))
            yield break;
        if (held[at.Whole].Count() > MostRows)
            yield return new Problem($"/{Cell(field.RowKey ?? at.Column!)}", "too-many", $"There are at most {MostRows} rows. Take one away first.");
        if (field.RowKey is { } key && !values.ContainsKey(Cell(key)))
            yield return new Problem(
                $"/{Cell(key)}",
                "missing",
                $"Say what the row is about: fill in {field.Columns!.First(c => c.Key == key).Label("en")}, or take the row away."
            );
        if (
            field.Dates is { } dates
            && values.TryGetValue(Cell(dates.From), out var from)
            && values.TryGetValue(Cell(dates.Until), out var until)
            // ISO 8601 dates are in order as texts.
            && string.CompareOrdinal(from.ToString(), until.ToString()) > 0
        )
            yield return new Problem($"/{Cell(dates.Until)}", "not-in-order", "The last day is not before the first.");

        string Cell(string column) => FieldAddress.Cell(field.Key, column, at.Row!).ToString();
    }
}
