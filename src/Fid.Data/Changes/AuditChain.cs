using System.Security.Cryptography;
using System.Text;
using Npgsql;

namespace Fid.Data.Changes;

/// <summary>Proves that no entry of the audit trail was altered, taken out or slipped in.</summary>
public static class AuditChain
{
    /// <summary>Walks the chain from its first link, or on from one that was noted down, and names the first that is broken.</summary>
    /// <param name="noted">The link that an earlier walk ended with, which must still be there: without it, nobody can tell that the newest
    /// entries are gone. What stands before it was looked at then, and is not again.</param>
    public static async Task<ChainFinding> VerifyAsync(NpgsqlConnection connection, (long Position, byte[] Hash)? noted, CancellationToken cancellation)
    {
        await using var command = new NpgsqlCommand(
            """
            select s.position, s.change_id, s.hash, case when c.id is null then null else sealed_content(c) end, c.action, c.by_name
            from seals s left join changes c on c.id = s.change_id where s.position > $1 order by s.position
            """,
            connection
        )
        {
            CommandTimeout = 0,
            Parameters = { new() { Value = noted?.Position ?? 0 } },
        };
        var (position, last) = noted ?? (0, []);
        if (noted is not null && await NotThereAsync(connection, position, last, cancellation) is { } gone)
            return gone;
        await using (var reader = await command.ExecuteReaderAsync(cancellation))
        {
            while (await reader.ReadAsync(cancellation))
            {
                position++;
                if (reader.GetInt64(0) != position)
                    return Broken("is missing");
                if (await reader.IsDBNullAsync(3, cancellation))
                    return Broken($"was of the change {reader.GetGuid(1)}, which is gone");
                var hash = (byte[])reader[2];
                if (!hash.AsSpan().SequenceEqual(SHA256.HashData([.. last, .. Encoding.UTF8.GetBytes(reader.GetString(3))])))
                    return Broken(
                        $"does not agree with its change {reader.GetGuid(1)} ({reader.GetString(4)} by {reader.GetString(5)}), or with the entry before it"
                    );
                last = hash;
            }
        }
        await using var unsealed = new NpgsqlCommand(
            "select c.id from changes c where not exists (select from seals s where s.change_id = c.id) order by c.at limit 1",
            connection
        )
        {
            CommandTimeout = 0,
        };
        if (await unsealed.ExecuteScalarAsync(cancellation) is Guid slipped)
            return new ChainFinding(position, last, $"The change {slipped} is in the audit trail, but not in the chain.");
        await using var stray = new NpgsqlCommand(
            """
            select v.id from record_values v where (not upper_inf(v.known)) <> (v.ended_by is not null)
              or not exists (select from changes c where c.id = v.change_id) order by v.id limit 1
            """,
            connection
        )
        {
            CommandTimeout = 0,
        };
        if (await stray.ExecuteScalarAsync(cancellation) is Guid value)
            return new ChainFinding(position, last, $"The value {value} began or ended without a change that says so.");
        return new ChainFinding(position, last, null);

        ChainFinding Broken(string how) => new(position, last, $"Entry {position} {how}.");
    }

    // What is wrong with the place of a link that was noted down; null where it is as it was.
    private static async Task<ChainFinding?> NotThereAsync(NpgsqlConnection connection, long position, byte[] hash, CancellationToken cancellation)
    {
        await using var command = new NpgsqlCommand(
            "select (select hash from seals where position = $1), coalesce((select max(position) from seals), 0)",
            connection
        )
        {
            Parameters = { new() { Value = position } },
        };
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        await reader.ReadAsync(cancellation);
        var end = reader.GetInt64(1);
        if (await reader.IsDBNullAsync(0, cancellation))
            return new ChainFinding(end, hash, $"Entry {position} was noted down, but the chain now ends with entry {end}.");
        return ((byte[])reader[0]).AsSpan().SequenceEqual(hash)
            ? null
            : new ChainFinding(position, hash, $"Entry {position} is not the one that was noted down.");
    }
}

/// <summary>What the walk along the chain found.</summary>
/// <param name="Position">The last entry looked at.</param>
/// <param name="Hash">The hash of the last sound one.</param>
/// <param name="Broken">What is broken, as a sentence; null where all is sound.</param>
public sealed record ChainFinding(long Position, byte[] Hash, string? Broken);
