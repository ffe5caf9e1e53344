using Fid.Acts.Lists;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Exchange;

/// <summary>Says of each row of a sheet what it would do to a list: the rules of the list, and nothing else, decide.</summary>
public sealed class RowChecker : IRowChecker
{
    /// <summary>A row whose code begins with this is an example of the sheet Fid gives out.</summary>
    public const string Example = "EXAMPLE-";

    private readonly ListDefinition _list;
    private readonly Dictionary<string, ListEntry> _there;
    private readonly EntryIndex _index;
    private readonly Dictionary<string, int> _seen = new(StringComparer.OrdinalIgnoreCase);
    private readonly CellStyle _style;
    private readonly bool _emptyClears;
    private readonly int _code,
        _name,
        _nameDe;
    private readonly (ListColumn Column, int At)[] _columns;
    private readonly Dictionary<string, (int Number, EntryContent Content)> _taken = new(StringComparer.OrdinalIgnoreCase);

    private RowChecker(ListDefinition list, Dictionary<string, ListEntry> there, EntryIndex index, ImportRun run, CellStyle style)
    {
        (_list, _there, _index, _style, _emptyClears) = (list, there, index, style, run.EmptyClears);
        (_code, _name, _nameDe) = (At(EntryReader.Code), At(EntryReader.Name), At(EntryReader.NameDe));
        _columns = [.. list.Columns.Select(c => (c, At(c.Key)))];

        int At(string key) => Array.IndexOf(run.Columns, key);
    }

    /// <summary>Whether entries of a list can refer to each other.</summary>
    public static bool RefersToItself(ListDefinition list) => list.Columns.Any(c => c.List == list.Key);

    /// <inheritdoc/>
    public bool AnnouncesFirst => RefersToItself(_list);

    public static async Task<RowChecker> LoadAsync(FidDb db, ListDefinition list, ImportRun run, CellStyle style, CancellationToken cancellation)
    {
        var there = await db
            .ListEntries.AsNoTracking()
            .Where(e => e.List == list.Key)
            .ToDictionaryAsync(e => e.Code, StringComparer.OrdinalIgnoreCase, cancellation);
        return new RowChecker(list, there, await EntryIndex.LoadAsync(db, list, cancellation), run, style);
    }

    /// <inheritdoc/>
    public void Announce(string[] cells)
    {
        if (Cell(cells, _code) is { Length: > 0 } code)
            _index.Add(_list.Key, code, Cell(cells, _name), null);
    }

    /// <inheritdoc/>
    public Task LoadAnnouncedAsync(CancellationToken cancellation) => Task.CompletedTask;

    /// <inheritdoc/>
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
            _list,
            there?.Code ?? code,
            name.Length == 0 && old is not null ? old.Name : name,
            nameDe.Length == 0 && !(_emptyClears && _nameDe >= 0) ? old?.NameDe : nameDe,
            column => Value(column, cells, old),
            _index.Find
        );
        var problems = read.Problems;
        if (code.Length > 0 && !_seen.TryAdd(code, number))
            problems =
            [
                .. problems,
                new EntryProblem(EntryReader.Code, "duplicate-code", $"The code {code} stands in row {_seen[code]} already. Keep one of them."),
            ];
        if (old is not null)
            problems = [.. problems, .. ListConsistency.Against(_list, old, read.Content)];
        if (problems.Count > 0)
            return new ImportRow(number, cells, RowOutcome.Wrong, null, null, null, problems);
        var content = new RowContent(read.Content.Code, read.Content.Name, read.Content.NameDe, EntryJson.Write(_list, read.Content.Values));
        if (old is not null && content.Name == old.Name && content.NameDe == old.NameDe && content.Values == EntryJson.Write(_list, old.Values))
            return new ImportRow(number, cells, RowOutcome.Same, there!.Id, null, null, []);
        if (AnnouncesFirst)
            _taken[content.Code] = (number, read.Content);
        return there is null
            ? new ImportRow(number, cells, RowOutcome.New, Guid.CreateVersion7(), content, null, [])
            : new ImportRow(number, cells, RowOutcome.Changed, there.Id, content, ListWriter.Describe(there), []);
    }

    /// <summary>
    /// What is wrong between the entries as they would be after the rows were taken: rings, trees that are too deep, and rows that
    /// refer to others of the sheet that cannot be taken.
    /// </summary>
    public IReadOnlyDictionary<int, EntryProblem[]> CheckTogether()
    {
        var wrong = new Dictionary<string, EntryProblem[]>(StringComparer.OrdinalIgnoreCase);
        while (true)
        {
            var after = _there.Values.ToDictionary(e => e.Code, e => e.Content(), StringComparer.OrdinalIgnoreCase);
            var rows = _taken.Values.Select(t => t.Content).Where(t => !wrong.ContainsKey(t.Code)).ToList();
            foreach (var content in rows)
                after[content.Code] = content;
            var found = rows.Select(r => (r.Code, Problems: Dangling(r, after).ToArray()))
                .Where(r => r.Problems.Length > 0)
                .ToDictionary(r => r.Code, r => r.Problems, StringComparer.OrdinalIgnoreCase);
            if (found.Count == 0)
                found = ListConsistency
                    .Between(_list, [.. after.Values])
                    .Where(w => rows.Any(r => r.Code == w.Entry))
                    .GroupBy(w => w.Entry)
                    .ToDictionary(
                        g => g.Key,
                        g => g.Select(w => new EntryProblem(w.Column, w.Code, w.Message)).DistinctBy(p => p.Column).ToArray(),
                        StringComparer.OrdinalIgnoreCase
                    );
            if (found.Count == 0)
                return wrong.ToDictionary(w => _taken[w.Key].Number, w => w.Value);
            // Without these others may be left hanging: look again.
            foreach (var (code, problems) in found)
                wrong[code] = problems;
        }
    }

    private IEnumerable<EntryProblem> Dangling(EntryContent row, Dictionary<string, EntryContent> after)
    {
        foreach (var column in _list.Columns.Where(c => c.List == _list.Key && row.Values.ContainsKey(c.Key)))
            if (EntryCheck.References(column, row.Values[column.Key]).FirstOrDefault(r => !after.ContainsKey(r.Code)) is { Code: { } missing })
                yield return new EntryProblem(
                    column.Key,
                    "unknown-entry",
                    $"The row of {missing} is not right, so this cannot refer to it. Mend that one first.",
                    _seen.TryGetValue(missing, out var number) ? new EntryCause(number, null) : null
                );
    }

    /// <summary>The cells of a row that a column of the list stands in; empty where the sheet does not have it.</summary>
    private CellValue Value(ListColumn column, string[] cells, EntryContent? old)
    {
        var at = -1;
        foreach (var (c, place) in _columns)
            if (ReferenceEquals(c, column))
                at = place;
        var cell = Cell(cells, at);
        if (cell.Length > 0)
            return ColumnValue.FromText(column, cell, _style);
        if (old is not null)
            return at >= 0 && _emptyClears || !old.Values.TryGetValue(column.Key, out var kept) ? CellValue.Empty : CellValue.Kept(kept);
        return column.Default is { } usual ? ColumnValue.FromText(column, usual, CellStyle.Own) : CellValue.Empty;
    }

    /// <summary>A cell of a row; empty where the row is shorter or the sheet has no such column.</summary>
    internal static string Cell(string[] cells, int at) => at < 0 || at >= cells.Length ? "" : SheetWriter.AsWritten(cells[at].Trim());
}
