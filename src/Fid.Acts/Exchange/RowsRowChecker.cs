using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Says of each line of a sheet which row of whose record it would change or add.</summary>
internal sealed class RowsRowChecker : IRowChecker
{
    private readonly RowsTarget _target;
    private readonly ImportRun _run;
    private readonly CellStyle _style;
    private readonly LocalDate _today;
    private readonly int _number,
        _row;
    private readonly (string Key, FieldDefinition Field, int At)[] _columns;
    private readonly SheetRecords _records;
    private readonly CalendarSet? _calendars;
    private readonly Dictionary<(Guid Person, string Row), int> _seen = [];

    private RowsRowChecker(RowsTarget target, ImportRun run, CellStyle style, LocalDate today, SheetRecords records, CalendarSet? calendars)
    {
        (_target, _run, _style, _today, _records, _calendars) = (target, run, style, today, records, calendars);
        (_number, _row) = (Array.IndexOf(run.Columns, EntryReader.Code), Array.IndexOf(run.Columns, RowsTarget.RowId));
        _columns = [.. target.Columns.Select(c => (c.Key, c.Field, Array.IndexOf(run.Columns, c.Key))).Where(c => c.Item3 >= 0)];
    }

    public static async Task<RowsRowChecker> LoadAsync(
        FidDb db,
        RowsTarget target,
        ImportRun run,
        CellStyle style,
        LocalDate today,
        CancellationToken cancellation
    ) =>
        new(
            target,
            run,
            style,
            today,
            await SheetRecords.LoadAsync(db, target.Reader, target.Definition, run, today, cancellation),
            target.Set.CountsWorkingDays ? await CalendarSet.LoadAsync(db, cancellation) : null
        );

    public bool AnnouncesFirst => true;

    public void Announce(string[] cells) => _records.Announce(RowChecker.Cell(cells, _number));

    public Task LoadAnnouncedAsync(CancellationToken cancellation) => _records.LoadAnnouncedAsync(cancellation);

    private static string ColumnOf(string address) => FieldAddress.Read(address).Column ?? EntryReader.Code;

    public ImportRow Check(int number, string[] cells)
    {
        var who = RowChecker.Cell(cells, _number);
        if (cells.All(string.IsNullOrWhiteSpace) || who.StartsWith(RowChecker.Example, StringComparison.OrdinalIgnoreCase))
            return new ImportRow(number, cells, RowOutcome.Ignored, null, null, null, []);
        if (who.Length == 0)
            return Wrong(new EntryProblem(EntryReader.Code, "missing", "Say by the employee number in whose record this row is."));
        if (_records.Find(who) is not { } employment)
            return Wrong(new EntryProblem(EntryReader.Code, "unknown-person", $"Nobody has the employee number {who}."));
        var (values, problems) = Read(cells);
        if (problems.Count > 0)
            return Wrong([.. problems]);
        var held = _records.Held(employment);
        var (row, wrong) = RowOf(cells, held, values);
        if (wrong is not null)
            return Wrong(wrong);
        var isNew = row is null;
        row ??= Guid.CreateVersion7().ToString("D");
        if (!_seen.TryAdd((employment.PersonId, isNew ? Said(values) : row), number))
            return Wrong(
                new EntryProblem(
                    isNew ? _target.Rows.RowKey ?? RowsTarget.RowId : RowsTarget.RowId,
                    "duplicate-code",
                    $"Row {_seen[(employment.PersonId, isNew ? Said(values) : row)]} says the same of {employment.Number} already. Keep one of them."
                )
            );
        var entered = new Dictionary<string, JsonElement?>(StringComparer.Ordinal);
        foreach (var (key, field, _) in _columns)
        {
            var address = Address(key, row);
            JsonElement? there = held.TryGetValue(address, out var present) ? present : null;
            var value = values.GetValueOrDefault(key);
            if ((value is null && !_run.EmptyClears) || JsonValues.Same(value, there))
                continue;
            if (!_target.MayEdit(field))
                problems.Add(new EntryProblem(key, "read-only", "You may read this and not change it."));
            entered[address] = value;
        }
        if (problems.Count == 0 && entered.Count > 0)
        {
            var ruled = RecordRules.Follow(_target.Set, held, entered, _today, all => _calendars?.OfRecord(all));
            problems.AddRange(ruled.Problems.Select(p => new EntryProblem(ColumnOf(p.Path[1..]), p.Code, p.Message)));
            problems.AddRange(SheetApprovals.Problems(_target.Reader.Fields, _records.Distances, employment.Id, held, entered, ruled, _today, ColumnOf));
        }
        if (problems.Count > 0)
            return Wrong([.. problems]);
        return entered.Count == 0
            ? new ImportRow(number, cells, RowOutcome.Same, employment.Id, null, null, [])
            : new ImportRow(
                number,
                cells,
                isNew ? RowOutcome.New : RowOutcome.Changed,
                employment.Id,
                new RowContent(employment.Number, "", null, JsonSerializer.Serialize(entered)),
                _records.Before(employment, entered),
                []
            );

        ImportRow Wrong(params EntryProblem[] found) => new(number, cells, RowOutcome.Wrong, null, null, null, found);
    }

    private (Dictionary<string, JsonElement?> Values, List<EntryProblem> Problems) Read(string[] cells)
    {
        var (values, problems) = (new Dictionary<string, JsonElement?>(StringComparer.Ordinal), new List<EntryProblem>());
        foreach (var (key, field, at) in _columns)
        {
            var (value, problem) = FieldCell.Read(field, RowChecker.Cell(cells, at), _style, _records.Refer);
            values[key] = value;
            if (problem is not null)
                problems.Add(new EntryProblem(key, problem.Code, problem.Message));
        }
        return (values, problems);
    }

    // The row a line is of: by its id, else the one about the same of the same first day; null for a new one.
    private (string? Row, EntryProblem? Problem) RowOf(string[] cells, IReadOnlyDictionary<string, JsonElement> held, Dictionary<string, JsonElement?> values)
    {
        var rows = held.Keys.Where(FieldAddress.IsInRow).Select(FieldAddress.Read).Where(a => a.Whole == _target.Rows.Key).Select(a => a.Row!).Distinct();
        if (RowChecker.Cell(cells, _row) is { Length: > 0 } said)
            return rows.FirstOrDefault(r => string.Equals(r, said, StringComparison.OrdinalIgnoreCase)) is { } known
                ? (known, null)
                : (null, new EntryProblem(RowsTarget.RowId, "unknown-row", "This person has no such row. Leave the cell empty for a new one."));
        if (_target.Rows.RowKey is not { } key || values.GetValueOrDefault(key) is not { } about)
            return (null, null);
        var first = _target.Rows.Dates?.From;
        var alike = rows.Where(r =>
                JsonValues.Same(about, Held(key, r))
                && (first is null || values.GetValueOrDefault(first) is not { } from || Held(first, r) is not { } began || JsonValues.Same(from, began))
            )
            .ToList();
        return alike switch
        {
            [] => (null, null),
            [var one] => (one, null),
            _ => (
                null,
                new EntryProblem(RowsTarget.RowId, "several-rows", "Several rows are about this. Take the sheet with their ids, and say which is meant.")
            ),
        };

        JsonElement? Held(string column, string row) => held.TryGetValue(Address(column, row), out var value) ? value : null;
    }

    // What two new rows of one person must not both say.
    private string Said(Dictionary<string, JsonElement?> values) =>
        JsonSerializer.Serialize(new[] { _target.Rows.RowKey, _target.Rows.Dates?.From }.Select(k => k is null ? null : values.GetValueOrDefault(k)));

    private string Address(string column, string row) => FieldAddress.Cell(_target.Rows.Key, column, row).ToString();
}
