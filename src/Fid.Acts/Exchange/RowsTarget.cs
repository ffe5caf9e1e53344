using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>
/// The rows of a field in everybody's records, as what a sheet goes into: a line for each row, known by the employee number and its id. A line
/// without an id is the row about the same, of the same first day; where there is none, a new one.
/// </summary>
public sealed class RowsTarget(FidDb db, RecordWriter writer, Reader reader, FieldDefinition rows) : RecordTarget(db, writer, reader)
{
    /// <summary>Before the key of the rows, their name among what sheets go into.</summary>
    public const string Prefix = "people.";

    /// <summary>The column with the id of a row.</summary>
    public const string RowId = "row_id";

    private static readonly ListColumn RowColumn = new(
        RowId,
        ColumnType.Text,
        new Label("Row", "Zeile"),
        new Label(
            "By this a row is known again. Leave it as it is, and empty for a new row.",
            "Daran wird die Zeile erkannt. Bitte nicht ändern; für eine neue Zeile leer lassen."
        )
    );

    private ListDefinition? _definition;

    /// <summary>The field whose rows they are.</summary>
    public FieldDefinition Rows => rows;

    /// <summary>The columns of the rows that have a column in the sheet, with their keys within the rows.</summary>
    public IReadOnlyList<(string Key, FieldDefinition Field)> Columns { get; } =
    [.. rows.ColumnsAsFields().Where(c => FieldCell.Has(c) && reader.Sees(c.Key)).Select(c => (FieldAddress.Read(c.Key).Column!, c))];

    public override ListDefinition Definition =>
        _definition ??= new(
            Prefix + rows.Key,
            ListGroup.Work,
            new Label($"People: {rows.Label("en")}", $"Personen: {rows.Label("de")}"),
            new Label(
                "A line for each row in people’s records, known by the employee number and the row.",
                "Je Zeile in den Akten eine, erkannt an Personalnummer und Zeile."
            ),
            [RowColumn, .. Columns.Select(c => FieldCell.Column(rows.Columns!.First(own => own.Key == c.Key)))],
            HasNames: false
        );

    public override async Task<IRowChecker> CheckerAsync(ImportRun run, CellStyle style, LocalDate today, CancellationToken cancellation) =>
        await RowsRowChecker.LoadAsync(Db, this, run, style, today, cancellation);

    public override async Task<CellSuggestions> SuggestionsAsync(CancellationToken cancellation) =>
        new(Definition, await EntryIndex.LoadAsync(Db, Definition, cancellation));

    protected override string ColumnOf(string address) => FieldAddress.Read(address).Column ?? address;

    internal override async Task<bool> ApplyAsync(ImportRun run, Actor actor, Func<int, Task> tell, CancellationToken cancellation)
    {
        var all = await AllAsync(run, cancellation);
        await Locks.RecordsAsync(Db, all.Select(r => r.EntryId).Distinct(), cancellation);
        return all.Count == run.New + run.Changed && StillFit(all) && await EditAsync(run, all, 0, actor, tell, cancellation);
    }

    internal override async Task<string?> UndoAsync(ImportRun run, Actor actor, CancellationToken cancellation)
    {
        var all = await AllAsync(run, cancellation);
        await Locks.RecordsAsync(Db, all.Select(r => r.EntryId).Distinct(), cancellation);
        var touched = await TakeBackAsync(run, all, keep: true, actor.Author(Place), actor.Today, cancellation);
        return touched.Count == 0 ? null : "changed:" + Name([.. touched]);
    }

    private async Task<List<Row>> AllAsync(ImportRun run, CancellationToken cancellation) =>
        [.. await RowsAsync(run, RowOutcome.New, cancellation), .. await RowsAsync(run, RowOutcome.Changed, cancellation)];
}
