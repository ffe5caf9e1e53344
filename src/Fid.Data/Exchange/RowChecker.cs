using Fid.Core.Lists;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data.Exchange;

/// <summary>Says of each row of a sheet what it would do to a list: the rules of the list, and nothing else, decide.</summary>
public sealed class RowChecker
{
    /// <summary>A row whose code begins with this is an example of the sheet Fid gives out.</summary>
    public const string Example = "EXAMPLE-";

    private readonly ListDefinition _list;
    private readonly Dictionary<string, ListEntry> _there;
    private readonly EntryIndex _index;
    private readonly Dictionary<string, int> _seen = new(StringComparer.OrdinalIgnoreCase);
    private readonly CellStyle _style;
    private readonly bool _emptyClears;
    private readonly int _code, _name, _nameDe;
    private readonly (ListColumn Column, int At)[] _columns;

    private RowChecker(ListDefinition list, Dictionary<string, ListEntry> there, EntryIndex index, ImportRun run, CellStyle style)
    {
        (_list, _there, _index, _style, _emptyClears) = (list, there, index, style, run.EmptyClears);
        (_code, _name, _nameDe) = (At(EntryReader.Code), At(EntryReader.Name), At(EntryReader.NameDe));
        _columns = [.. list.Columns.Select(c => (c, At(c.Key)))];

        int At(string key) => Array.IndexOf(run.Columns, key);
    }

    /// <summary>Whether rows of the list can refer to each other, so that all codes must be known before the first is checked.</summary>
    public static bool RefersToItself(ListDefinition list) => list.Columns.Any(c => c.List == list.Key);

    public static async Task<RowChecker> LoadAsync(FidDb db, ListDefinition list, ImportRun run, CellStyle style, CancellationToken cancellation)
    {
        var there = await db.ListEntries.AsNoTracking().Where(e => e.List == list.Key).ToDictionaryAsync(e => e.Code, StringComparer.OrdinalIgnoreCase, cancellation);
        return new RowChecker(list, there, await EntryIndex.LoadAsync(db, list, cancellation), run, style);
    }

    /// <summary>Makes the code and the name of a row known, for rows of the same sheet that refer to it.</summary>
    public void Announce(string[] cells)
    {
        if (Cell(cells, _code) is { Length: > 0 } code) _index.Add(_list.Key, code, Cell(cells, _name), null);
    }

    /// <summary>What a row would do.</summary>
    public ImportRow Check(int number, string[] cells)
    {
        var code = Cell(cells, _code);
        if (code.StartsWith(Example, StringComparison.OrdinalIgnoreCase) || cells.All(string.IsNullOrWhiteSpace))
            return new ImportRow(number, cells, RowOutcome.Ignored, null, null, null, []);
        var there = _there.GetValueOrDefault(code);
        var old = there?.Content();
        var name = Cell(cells, _name);
        var nameDe = Cell(cells, _nameDe);
        var read = EntryReader.Read(
            _list, there?.Code ?? code,
            name.Length == 0 && old is not null ? old.Name : name,
            nameDe.Length == 0 && !(_emptyClears && _nameDe >= 0) ? old?.NameDe : nameDe,
            column => Value(column, cells, old), _index.Find);
        var problems = read.Problems;
        if (code.Length > 0 && !_seen.TryAdd(code, number))
            problems = [.. problems, new EntryProblem(EntryReader.Code, "duplicate-code", $"The code {code} stands in row {_seen[code]} already. Keep one of them.")];
        if (old is not null) problems = [.. problems, .. TogetherCheck.Against(_list, old, read.Content)];
        if (problems.Count > 0) return new ImportRow(number, cells, RowOutcome.Wrong, null, null, null, problems);
        if (there is null || old is null) return new ImportRow(number, cells, RowOutcome.New, Guid.CreateVersion7(), read.Content, null, []);
        var same = read.Content.Name == old.Name && read.Content.NameDe == old.NameDe && EntryJson.Write(_list, read.Content.Values) == EntryJson.Write(_list, old.Values);
        return new ImportRow(number, cells, same ? RowOutcome.Same : RowOutcome.Changed, there.Id, read.Content, same ? null : ListWriter.Describe(there), []);
    }

    /// <summary>
    /// What is wrong between the entries as they would be after the rows were taken, by the code of the row at fault: rings, trees
    /// that are too deep, and rows that refer to others of the sheet that cannot be taken.
    /// </summary>
    public IReadOnlyDictionary<string, EntryProblem[]> CheckTogether(IReadOnlyCollection<EntryContent> taken)
    {
        var wrong = new Dictionary<string, EntryProblem[]>(StringComparer.OrdinalIgnoreCase);
        while (true)
        {
            var after = _there.Values.ToDictionary(e => e.Code, e => e.Content(), StringComparer.OrdinalIgnoreCase);
            var rows = taken.Where(t => !wrong.ContainsKey(t.Code)).ToList();
            foreach (var content in rows) after[content.Code] = content;
            var found = rows
                .Select(r => (r.Code, Problems: Dangling(r, after).ToArray())).Where(r => r.Problems.Length > 0).ToDictionary(r => r.Code, r => r.Problems, StringComparer.OrdinalIgnoreCase);
            if (found.Count == 0)
                found = TogetherCheck.Between(_list, [.. after.Values]).Where(w => rows.Any(r => r.Code == w.Entry))
                    .GroupBy(w => w.Entry).ToDictionary(g => g.Key, g => g.Select(w => new EntryProblem(w.Column, w.Code, w.Message)).DistinctBy(p => p.Column).ToArray(), StringComparer.OrdinalIgnoreCase);
            if (found.Count == 0) return wrong;
            // Without these others may be left hanging: look again.
            foreach (var (code, problems) in found) wrong[code] = problems;
        }
    }

    private IEnumerable<EntryProblem> Dangling(EntryContent row, Dictionary<string, EntryContent> after)
    {
        foreach (var column in _list.Columns.Where(c => c.List == _list.Key && row.Values.ContainsKey(c.Key)))
            if (EntryCheck.References(column, row.Values[column.Key]).FirstOrDefault(r => !after.ContainsKey(r.Code)) is { Code: { } missing })
                yield return new EntryProblem(column.Key, "unknown-entry", $"The row of {missing} is not right, so this cannot refer to it. Mend that one first.");
    }

    /// <summary>The entry of a list that is nearest to what a cell says; null where none comes near.</summary>
    public string? Suggest(EntryProblem problem, string cell)
    {
        if (_list.Find(problem.Column) is not { } column) return null;
        if (column.Type == ColumnType.Choice) return Nearest.Find(cell, column.Options!.SelectMany(o => o.Label.All.Append(o.Value).Select(l => (l, o.Value))));
        if (column.List is null) return null;
        if (column.Type == ColumnType.Entry) return _index.FindNearest(column.List, cell);
        // One of several: only what is unknown is replaced.
        var parts = cell.Split([';', ','], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var nearest = parts.Select(p => _index.Find(column.List, p) is not null || column.Type != ColumnType.Entries ? p : _index.FindNearest(column.List, p)).ToArray();
        return column.Type == ColumnType.Entries && nearest.All(n => n is not null) ? string.Join("; ", nearest) : null;
    }

    /// <summary>The cells of a row that a column of the list stands in; empty where the sheet does not have it.</summary>
    private CellValue Value(ListColumn column, string[] cells, EntryContent? old)
    {
        var at = -1;
        foreach (var (c, place) in _columns)
            if (ReferenceEquals(c, column)) at = place;
        var cell = Cell(cells, at);
        if (cell.Length > 0) return ColumnValue.FromText(column, cell, _style);
        if (old is not null) return at >= 0 && _emptyClears || !old.Values.TryGetValue(column.Key, out var kept) ? CellValue.Empty : CellValue.Kept(kept);
        return column.Default is { } usual ? ColumnValue.FromText(column, usual, CellStyle.Own) : CellValue.Empty;
    }

    private static string Cell(string[] cells, int at)
    {
        if (at < 0 || at >= cells.Length) return "";
        return SheetWriter.AsWritten(cells[at].Trim());
    }
}
