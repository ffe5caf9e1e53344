using Fid.Data.Exchange;
using Npgsql;

namespace Fid.Acts.Exchange;

/// <summary>Keeps uploaded files in the database until they are read, in sealed pieces, so that any server instance can go on with them.</summary>
public sealed class ImportFiles(NpgsqlDataSource source, SheetSeals seals)
{
    private const int Piece = 1_000_000;

    /// <summary>Keeps a file; answers its size, or null after keeping nothing where it is larger than a sheet may be.</summary>
    public async Task<long?> KeepAsync(ImportRun run, Stream content, CancellationToken cancellation)
    {
        using var seal = seals.Of(run);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var buffer = new byte[Piece];
        long size = 0;
        for (var number = 0; ; number++)
        {
            var read = await content.ReadAtLeastAsync(buffer, Piece, throwOnEndOfStream: false, cancellation);
            if (read == 0)
                break;
            if ((size += read) > SheetFile.LargestFile)
                return null;
            await using var insert = new NpgsqlCommand("insert into import_pieces (run_id, no, bytes) values ($1, $2, $3)", connection, transaction)
            {
                Parameters =
                {
                    new() { Value = run.Id },
                    new() { Value = number },
                    new() { Value = seal.Close(buffer.AsSpan(0, read)) },
                },
            };
            await insert.ExecuteNonQueryAsync(cancellation);
        }
        await transaction.CommitAsync(cancellation);
        return size;
    }

    /// <summary>The file as it came.</summary>
    public async Task<byte[]> FetchAsync(ImportRun run, CancellationToken cancellation)
    {
        using var seal = seals.Of(run);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        // It is at most as large as a sheet may be, and never written to a disk in the open.
        using var file = new MemoryStream((int)Math.Min(run.Size, SheetFile.LargestFile));
        await using var select = new NpgsqlCommand("select bytes from import_pieces where run_id = $1 order by no", connection)
        {
            Parameters = { new() { Value = run.Id } },
        };
        await using var reader = await select.ExecuteReaderAsync(System.Data.CommandBehavior.SequentialAccess, cancellation);
        while (await reader.ReadAsync(cancellation))
            file.Write(seal.Open(await reader.GetFieldValueAsync<byte[]>(0, cancellation)));
        return file.ToArray();
    }
}
