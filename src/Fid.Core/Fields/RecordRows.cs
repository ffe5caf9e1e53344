using System.Text.Json;
using Fid.Core.Formulas;

namespace Fid.Core.Fields;

/// <summary>The rows among the values of a record, by the fields they belong to. To a reader they are made of what they may see of them.</summary>
internal sealed class RecordRows
{
    private readonly FieldSet _set;
    private readonly Dictionary<string, SortedDictionary<string, Dictionary<string, JsonElement>>> _tables = new(StringComparer.Ordinal);

    private RecordRows(FieldSet set) => _set = set;

    public static RecordRows Of(FieldSet set, RecordQuestion question)
    {
        var rows = new RecordRows(set);
        foreach (var (address, value) in question.Values)
        {
            if (!FieldAddress.IsInRow(address) || FieldValues.IsEmpty(value))
                continue;
            var at = FieldAddress.Read(address);
            if (at.Column is not { } column || set.Find(address) is null)
                continue;
            if (question.Rights?.Sees(address) == false)
                continue;
            if (!rows._tables.TryGetValue(at.Whole, out var table))
                rows._tables[at.Whole] = table = new(StringComparer.Ordinal);
            if (!table.TryGetValue(at.Row!, out var row))
                table[at.Row!] = row = new(StringComparer.Ordinal);
            row[column] = value;
        }
        return rows;
    }

    /// <summary>What each row of a field is about; the id of one of which that may not be seen.</summary>
    public IReadOnlyList<JsonElement> AboutOf(string field) =>
        _tables.TryGetValue(field, out var table)
            ?
            [
                .. table.Select(r =>
                    _set.Find(field)?.RowKey is { } key && r.Value.TryGetValue(key, out var about) ? about : JsonSerializer.SerializeToElement(r.Key)
                ),
            ]
            : [];

    /// <summary>The rows evaluated, by the place of their field.</summary>
    /// <param name="seen">By place, whether the reader sees a field.</param>
    /// <param name="record">What the rest of the record says.</param>
    public Dictionary<int, IReadOnlyList<(string Row, EvaluatedRecord Cells)>> Evaluate(RecordQuestion question, bool[] seen, FormulaFacts record)
    {
        var evaluated = new Dictionary<int, IReadOnlyList<(string, EvaluatedRecord)>>();
        if (_tables.Count == 0)
            return evaluated;
        var (typed, changed) = (InRows(question.Typed), InRows(question.Changed));
        foreach (var (field, table) in _tables)
        {
            if (_set.Place(field) is not (var at and >= 0) || !seen[at] || _set.Compiled[at].Columns is not { } columns)
                continue;
            // Where nothing is to be filled in for the field, nothing is in its rows.
            var whole = question.Typed.Contains(field);
            evaluated[at] =
            [
                .. table.Select(r =>
                    (
                        r.Key,
                        RecordEvaluation.OfRow(
                            columns,
                            question with
                            {
                                Values = r.Value,
                                Typed = whole ? columns.Keys : [.. typed[(field, r.Key)]],
                                Changed = [.. changed[(field, r.Key)]],
                                Rights = question.Rights?.Within(field),
                            },
                            record
                        )
                    )
                ),
            ];
        }
        return evaluated;
    }

    private static ILookup<(string, string?), string> InRows(IEnumerable<string> addresses) =>
        addresses.Where(FieldAddress.IsInRow).Select(FieldAddress.Read).Where(a => a.Column is not null).ToLookup(a => (a.Whole, a.Row), a => a.Column!);
}
