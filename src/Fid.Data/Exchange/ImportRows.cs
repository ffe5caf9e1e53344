using System.Text.Json;
using Npgsql;
using NpgsqlTypes;

namespace Fid.Data.Exchange;

/// <summary>The rows of imports, written and read in bulk.</summary>
internal static class ImportRows
{
    private const string Columns = "run_id, generation, no, cells, outcome, entry_id, code, name, name_de, values, before, problems";

    /// <summary>Begins writing rows; the caller writes each and completes.</summary>
    public static Task<NpgsqlBinaryImporter> WriterAsync(NpgsqlConnection connection, CancellationToken cancellation) =>
        connection.BeginBinaryImportAsync($"copy import_rows ({Columns}) from stdin (format binary)", cancellation);

    public static void Write(NpgsqlBinaryImporter writer, Guid run, int generation, ImportRow row)
    {
        writer.StartRow();
        writer.Write(run, NpgsqlDbType.Uuid);
        writer.Write(generation, NpgsqlDbType.Integer);
        writer.Write(row.Number, NpgsqlDbType.Integer);
        writer.Write(row.Cells, NpgsqlDbType.Array | NpgsqlDbType.Text);
        writer.Write((short)row.Outcome, NpgsqlDbType.Smallint);
        // Of a row that does nothing no more is needed than that.
        var content = row.Outcome is RowOutcome.New or RowOutcome.Changed ? row.Content : null;
        if (content is not null && row.EntryId is { } id) writer.Write(id, NpgsqlDbType.Uuid);
        else writer.WriteNull();
        Text(content?.Code);
        Text(content?.Name);
        Text(content?.NameDe);
        Json(content?.Values);
        Json(row.Before);
        Json(row.Problems.Count == 0 ? null : JsonSerializer.Serialize(row.Problems, JsonSerializerOptions.Web));

        void Text(string? text)
        {
            if (text is null) writer.WriteNull();
            else writer.Write(text, NpgsqlDbType.Text);
        }

        void Json(string? json)
        {
            if (json is null) writer.WriteNull();
            else writer.Write(json, NpgsqlDbType.Jsonb);
        }
    }

    /// <summary>The cells of all rows of a run as they stand, one after the other.</summary>
    public static IEnumerable<(int Number, string[] Cells)> Cells(NpgsqlConnection connection, Guid run, int generation)
    {
        using var select = new NpgsqlCommand("select no, cells from import_rows where run_id = $1 and generation = $2 order by no", connection)
        {
            Parameters = { new() { Value = run }, new() { Value = generation } },
        };
        using var reader = select.ExecuteReader();
        while (reader.Read()) yield return (reader.GetInt32(0), reader.GetFieldValue<string[]>(1));
    }
}
