using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Says of each line of a sheet which row of whose record it would change or add.</summary>
internal sealed class RowsRowChecker : IRowChecker
{
    private readonly FidDb _db;
    private readonly RowsTarget _target;
    private readonly ImportRun _run;
    private readonly CellStyle _style;
    private readonly LocalDate _today;
    private readonly int _number,
        _row;
    private readonly (string Key, FieldDefinition Field, int At)[] _columns;
    private readonly Dictionary<string, Employment> _byNumber;
    private readonly Dictionary<string, string> _numberOf;
    private readonly EntryIndex _index;
    private readonly CalendarSet? _calendars;
    private readonly HashSet<Guid> _mentioned = [];
    private readonly Dictionary<(Guid Person, string Row), int> _seen = [];
    private IReadOnlyDictionary<Guid, ActiveRecord> _held = new Dictionary<Guid, ActiveRecord>();

    private RowsRowChecker(
        FidDb db,
        RowsTarget target,
        ImportRun run,
        CellStyle style,
        LocalDate today,
        List<Employment> employments,
        EntryIndex index,
        CalendarSet? calendars
    )
    {
        (_db, _target, _run, _style, _today, _index, _calendars) = (db, target, run, style, today, index, calendars);
        (_number, _row) = (Array.IndexOf(run.Columns, EntryReader.Code), Array.IndexOf(run.Columns, RowsTarget.RowId));
        _columns = [.. target.Columns.Select(c => (c.Key, c.Field, Array.IndexOf(run.Columns, c.Key))).Where(c => c.Item3 >= 0)];
        _byNumber = employments.ToDictionary(e => e.Number, StringComparer.OrdinalIgnoreCase);
        _numberOf = employments.ToDictionary(e => e.Id.ToString(), e => e.Number, StringComparer.OrdinalIgnoreCase);
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
            db,
            target,
            run,
            style,
            today,
            await db.Employments.AsNoTracking().ToListAsync(cancellation),
            await EntryIndex.LoadAsync(db, target.Definition, cancellation),
            target.Set.CountsWorkingDays ? await CalendarSet.LoadAsync(db, cancellation) : null
        );

    public bool AnnouncesFirst => true;

    public void Announce(string[] cells)
    {
        if (_byNumber.TryGetValue(RowChecker.Cell(cells, _number), out var employment))
            _mentioned.Add(employment.Id);
    }

    public async Task LoadAnnouncedAsync(CancellationToken cancellation) =>
        _held = (await ActiveRecords.LoadAsync(_db, _today, cancellation, _run.HoldsFrom, former: true, only: [.. _mentioned])).Records;

    public IReadOnlyDictionary<int, EntryProblem[]> CheckTogether() => new Dictionary<int, EntryProblem[]>();

    public ImportRow Check(int number, string[] cells)
    {
        var who = RowChecker.Cell(cells, _number);
        if (cells.All(string.IsNullOrWhiteSpace) || who.StartsWith(RowChecker.Example, StringComparison.OrdinalIgnoreCase))
            return new ImportRow(number, cells, RowOutcome.Ignored, null, null, null, []);
        if (who.Length == 0)
            return Wrong(new EntryProblem(EntryReader.Code, "missing", "Say by the employee number in whose record this row is."));
        if (!_byNumber.TryGetValue(who, out var employment))
            return Wrong(new EntryProblem(EntryReader.Code, "unknown-person", $"Nobody has the employee number {who}."));
        var (values, problems) = Read(cells);
        if (problems.Count > 0)
            return Wrong([.. problems]);
        var held = _held[employment.Id].Values;
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
            if ((value is null && !_run.EmptyClears) || Same(value, there))
                continue;
            if (!_target.MayEdit(field))
                problems.Add(new EntryProblem(key, "read-only", "You may read this and not change it."));
            entered[address] = value;
        }
        if (problems.Count == 0 && entered.Count > 0)
            problems.AddRange(
                RecordRules
                    .Follow(_target.Set, held, entered, _today, all => _calendars?.OfRecord(all))
                    .Problems.Select(p => new EntryProblem(FieldAddress.Read(p.Path[1..]).Column ?? EntryReader.Code, p.Code, p.Message))
            );
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
                RecordCells.Before(held, entered, _numberOf),
                []
            );

        ImportRow Wrong(params EntryProblem[] found) => new(number, cells, RowOutcome.Wrong, null, null, null, found);
    }

    private (Dictionary<string, JsonElement?> Values, List<EntryProblem> Problems) Read(string[] cells)
    {
        var (values, problems) = (new Dictionary<string, JsonElement?>(StringComparer.Ordinal), new List<EntryProblem>());
        foreach (var (key, field, at) in _columns)
        {
            var (value, problem) = FieldCell.Read(field, RowChecker.Cell(cells, at), _style, Find);
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
                Same(about, Held(key, r))
                && (first is null || values.GetValueOrDefault(first) is not { } from || Held(first, r) is not { } began || Same(from, began))
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

    private string? Find(string list, string text) =>
        list == EntryCheck.People
            ? _byNumber.TryGetValue(text, out var person)
                ? person.Id.ToString()
                : null
            : _index.Find(list, text);

    private static bool Same(JsonElement? value, JsonElement? there) => RecordCells.Same(value, there);
}
