using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;

namespace Fid.Acts.Exchange;

/// <summary>The rows of imports, written and read in bulk.</summary>
public static class ImportRows
{
    private const string Columns = "run_id, generation, no, cells, outcome, entry_id, code, name, name_de, values, before, problems";

    /// <summary>Begins writing rows; the caller writes each and completes.</summary>
    public static Task<NpgsqlBinaryImporter> WriterAsync(NpgsqlConnection connection, CancellationToken cancellation) =>
        connection.BeginBinaryImportAsync($"copy import_rows ({Columns}) from stdin (format binary)", cancellation);

    public static void Write(NpgsqlBinaryImporter writer, SheetSeal seal, Guid run, int generation, ImportRow row)
    {
        writer.StartRow();
        writer.Write(run, NpgsqlDbType.Uuid);
        writer.Write(generation, NpgsqlDbType.Integer);
        writer.Write(row.Number, NpgsqlDbType.Integer);
        writer.Write(seal.CloseCells(row.Cells), NpgsqlDbType.Bytea);
        writer.Write((short)row.Outcome, NpgsqlDbType.Smallint);
        // Of a row that does nothing no more is needed than that.
        var content = row.Outcome is RowOutcome.New or RowOutcome.Changed ? row.Content : null;
        if (content is not null && row.EntryId is { } id)
            writer.Write(id, NpgsqlDbType.Uuid);
        else
            writer.WriteNull();
        Text(content?.Code);
        Text(content?.Name);
        Text(content?.NameDe);
        Json(content?.Values);
        Json(row.Before);
        if (seal.CloseProblems(row.Problems) is { } problems)
            writer.Write(problems, NpgsqlDbType.Bytea);
        else
            writer.WriteNull();

        void Text(string? text)
        {
            if (text is null)
                writer.WriteNull();
            else
                writer.Write(text, NpgsqlDbType.Text);
        }

        void Json(string? json)
        {
            if (json is null)
                writer.WriteNull();
            else
                writer.Write(json, NpgsqlDbType.Jsonb);
        }
    }

    /// <summary>The cells of all rows of a run as they stand, one after the other.</summary>
    public static IEnumerable<(int Number, string[] Cells)> Cells(NpgsqlConnection connection, SheetSeal seal, Guid run, int generation)
    {
        using var select = new NpgsqlCommand("select no, cells from import_rows where run_id = $1 and generation = $2 order by no", connection)
        {
            CommandTimeout = FidDatabase.LongestWork,
            Parameters =
            {
                new() { Value = run },
                new() { Value = generation },
            },
        };
        using var reader = select.ExecuteReader();
        while (reader.Read())
            yield return (reader.GetInt32(0), seal.OpenCells(reader.GetFieldValue<byte[]>(1)));
    }

    /// <summary>Changes a cell of a row, or that of all rows which say the same in its column; a short row is filled up to the cell.</summary>
    /// <returns>How many rows were changed.</returns>
    public static async Task<int> MendAsync(
        FidDb db,
        SheetSeal seal,
        ImportRun run,
        int row,
        int column,
        string text,
        bool allLike,
        CancellationToken cancellation
    )
    {
        var rows = await db
            .Database.SqlQuery<ClosedRow>(
                $"""
                select no, cells from import_rows where run_id = {run.Id} and generation = {run.Generation} and cells is not null and ({allLike} or no = {row})
                """
            )
            .ToListAsync(cancellation);
        if (rows.Find(r => r.No == row) is not { } mended)
            return 0;
        var was = At(seal.OpenCells(mended.Cells));
        var (numbers, cells) = (new List<int>(), new List<byte[]>());
        foreach (var one in rows)
        {
            var open = seal.OpenCells(one.Cells);
            if (one.No != row && At(open) != was)
                continue;
            if (open.Length <= column)
                open = [.. open, .. Enumerable.Repeat("", column + 1 - open.Length)];
            open[column] = text;
            numbers.Add(one.No);
            cells.Add(seal.CloseCells(open));
        }
        foreach (var some in numbers.Zip(cells).Chunk(5_000))
            await db.Database.ExecuteSqlAsync(
                $"""
                update import_rows r set cells = m.cells from unnest({some.Select(m => m.First).ToArray()}, {some.Select(m => m.Second).ToArray()}) m(no, cells)
                where r.run_id = {run.Id} and r.generation = {run.Generation} and r.no = m.no
                """,
                cancellation
            );
        return numbers.Count;

        string At(string[] all) => column < all.Length ? all[column] : "";
    }

    private sealed record ClosedRow(int No, byte[] Cells);
}
