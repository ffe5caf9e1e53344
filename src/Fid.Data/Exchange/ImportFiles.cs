using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Data.Exchange;

/// <summary>Keeps uploaded files in the database, in pieces, so that any server instance can go on with them.</summary>
public sealed class ImportFiles(NpgsqlDataSource source)
{
    private const int Piece = 1_000_000;

    /// <summary>Keeps a file; answers its size, or null after keeping nothing where it is larger than a sheet may be.</summary>
    public async Task<long?> KeepAsync(Guid run, Stream content, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var buffer = new byte[Piece];
        long size = 0;
        for (var number = 0; ; number++)
        {
            var read = await content.ReadAtLeastAsync(buffer, Piece, throwOnEndOfStream: false, cancellation);
            if (read == 0) break;
            if ((size += read) > SheetFile.LargestFile) return null;
            await using var insert = new NpgsqlCommand("insert into import_pieces (run_id, no, bytes) values ($1, $2, $3)", connection, transaction)
            {
                Parameters = { new() { Value = run }, new() { Value = number }, new() { Value = buffer[..read] } },
            };
            await insert.ExecuteNonQueryAsync(cancellation);
        }
        await transaction.CommitAsync(cancellation);
        return size;
    }

    /// <summary>Copies a file to a place on disk, where it can be read as often as is needed.</summary>
    public async Task FetchAsync(Guid run, string path, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var file = File.Create(path);
        await using var select = new NpgsqlCommand("select bytes from import_pieces where run_id = $1 order by no", connection) { Parameters = { new() { Value = run } } };
        await using var reader = await select.ExecuteReaderAsync(System.Data.CommandBehavior.SequentialAccess, cancellation);
        while (await reader.ReadAsync(cancellation)) await file.WriteAsync(await reader.GetFieldValueAsync<byte[]>(0, cancellation), cancellation);
    }

    /// <summary>Forgets a file.</summary>
    public static Task ForgetAsync(FidDb db, Guid run, CancellationToken cancellation) =>
        db.Database.ExecuteSqlAsync($"delete from import_pieces where run_id = {run}", cancellation);
}
