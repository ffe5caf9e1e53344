using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Records, as what a sheet goes into, for somebody: of those they may open, what they see it takes, and changes what they may edit.</summary>
public abstract class RecordTarget(FidDb db, RecordWriter writer, Reader reader) : ImportTarget
{
    /// <summary>Where changes by sheets come from.</summary>
    protected const string Place = "exchange";

    internal FieldSet Set => reader.Fields.Set;

    protected FidDb Db => db;

    protected RecordWriter Writer => writer;

    internal Reader Reader => reader;

    /// <summary>Whether the user may change a field.</summary>
    public bool MayEdit(FieldDefinition field) => reader.MayEdit(field.Key);

    public override IEnumerable<CellDifference> Differences(string before, RowContent after)
    {
        var cells = JsonNode.Parse(before)!;
        // What could be seen when the sheet came may be hidden by now.
        foreach (var (field, was) in cells["was"]!.AsObject().Where(c => Definition.Find(ColumnOf(c.Key)) is not null))
            yield return new CellDifference(ColumnOf(field), (string)was!, (string)cells["becomes"]![field]!);
    }

    /// <summary>The column of the sheet that a value of the record stands in.</summary>
    protected virtual string ColumnOf(string address) => address;

    /// <summary>Saves what rows say, record by record. False where it was changed since it was checked, or does not go together.</summary>
    /// <param name="done">How many rows are done before.</param>
    internal async Task<bool> EditAsync(ImportRun run, IReadOnlyList<Row> rows, int done, Actor actor, Func<int, Task> tell, CancellationToken cancellation)
    {
        if (rows.Count == 0)
            return true;
        await writer.LockUniqueAsync(Set.FieldsAndColumns.Select(f => f.Key), cancellation);
        var held = (await ActiveRecords.LoadAsync(db, actor.Today, cancellation, run.HoldsFrom, former: true, only: [.. rows.Select(r => r.EntryId)])).Records;
        // Somebody may have saved a record since the rows were checked.
        if (rows.Any(r => r.Was.Any(w => (held[r.EntryId].Values.TryGetValue(w.Key, out var now) ? now.GetRawText() : null) != w.Value?.GetRawText())))
            return false;
        var author = actor.Author(Place);
        // What several rows say of one record is one save of it.
        foreach (var some in rows.GroupBy(r => r.EntryId).Chunk(RecordRun.SavedAtOnce))
        {
            var (employments, records) = await writer.ReadAsync(some.Select(r => r.Key), cancellation);
            // Somebody may be out of the user's reach by now.
            if (!records.Values.All(reader.MayOpen))
                return false;
            var edits = some.Select(record => new RecordEdit(
                    employments[record.Key],
                    records[record.Key],
                    [.. record.SelectMany(r => r.Entered).Select(e => new FieldEdit(e.Key, e.Value, Core.Templates.Layer.Typed, run.HoldsFrom))],
                    author.Change(run.HoldsFrom is null ? "record.fixed" : "record.changed", record.Key, run.Id.ToString(), run.FileName)
                ))
                .ToList();
            db.Changes.AddRange(edits.Select(e => e.Change));
            if ((await writer.SaveAsync(edits, actor.Today, cancellation)).Count > 0)
                return false;
            await db.SaveManyAsync(cancellation);
            db.ChangeTracker.Clear();
            await tell(done += some.Sum(r => r.Count()));
        }
        return true;
    }

    /// <summary>Takes back what a run changed of records.</summary>
    /// <param name="keep">Whether what could be taken back is kept, as long as all could.</param>
    /// <returns>The numbers of those that were changed since; nothing is to be kept where there are any.</returns>
    internal Task<IReadOnlyList<string>> TakeBackAsync(
        ImportRun run,
        IReadOnlyList<Row> rows,
        bool keep,
        Author author,
        LocalDate today,
        CancellationToken cancellation
    ) => new RecordRun(run.Id, run.FileName).TakeBackAsync(db, writer, rows.Select(r => r.EntryId), keep, author, today, cancellation);

    // The fields, and who may edit them, can have changed since the rows were checked.
    internal bool StillFit(List<Row> rows) =>
        rows.TrueForAll(r =>
            r.Entered.All(e =>
                Set.Find(e.Key) is { } field && MayEdit(field) && (e.Value is not { } value || ValueCheck.Check(field, value) is (not null, null))
            )
        );

    internal async Task<List<Row>> RowsAsync(ImportRun run, RowOutcome outcome, CancellationToken cancellation)
    {
        var rows = await StoredAsync(run, outcome, cancellation);
        return rows.ConvertAll(r => new Row(r.EntryId, ByField(r.Values), ByField(r.Was!.Value)));
    }

    internal Task<List<StoredRow>> StoredAsync(ImportRun run, RowOutcome outcome, CancellationToken cancellation)
    {
        var wanted = (short)outcome;
        return db
            .Database.SqlQuery<StoredRow>(
                $"""
                select entry_id, values, before -> 'values' as was from import_rows
                where run_id = {run.Id} and generation = {run.Generation} and outcome = {wanted} order by no
                """
            )
            .ToListAsync(cancellation);
    }

    internal static Dictionary<string, JsonElement?> ByField(JsonElement values) =>
        values.EnumerateObject().ToDictionary(v => v.Name, v => v.Value.ValueKind == JsonValueKind.Null ? (JsonElement?)null : v.Value, StringComparer.Ordinal);

    internal sealed record StoredRow(Guid EntryId, JsonElement Values, JsonElement? Was);

    internal sealed record Row(Guid EntryId, Dictionary<string, JsonElement?> Entered, Dictionary<string, JsonElement?> Was);
}
