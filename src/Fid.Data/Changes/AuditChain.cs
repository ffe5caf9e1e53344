using System.Security.Cryptography;
using System.Text;
using Npgsql;

namespace Fid.Data.Changes;

/// <summary>Proves that no entry of the audit trail was altered, taken out or slipped in.</summary>
public static class AuditChain
{
    /// <summary>Walks the chain from its first link, and names the first that is broken.</summary>
    /// <param name="noted">A link that was noted down earlier, which must still be there: without it, nobody can tell that the
    /// newest entries are gone.</param>
    public static async Task<ChainFinding> VerifyAsync(NpgsqlConnection connection, (long Position, byte[] Hash)? noted, CancellationToken cancellation)
    {
        await using var command = new NpgsqlCommand(
            """
            select s.position, s.change_id, s.hash, case when c.id is null then null else sealed_content(c) end, c.action, c.by_name
            from seals s left join changes c on c.id = s.change_id order by s.position
            """,
            connection
        )
        {
            CommandTimeout = 0,
        };
        long position = 0;
        byte[] last = [];
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
                if (noted?.Position == position && !last.AsSpan().SequenceEqual(noted.Value.Hash))
                    return Broken("is not the one that was noted down");
            }
        }
        if (noted?.Position > position)
            return new ChainFinding(position, last, $"Entry {noted.Value.Position} was noted down, but the chain now ends with entry {position}.");
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
}

/// <summary>What the walk along the chain found.</summary>
/// <param name="Position">The last entry looked at.</param>
/// <param name="Hash">The hash of the last sound one.</param>
/// <param name="Broken">What is broken, as a sentence; null where all is sound.</param>
public sealed record ChainFinding(long Position, byte[] Hash, string? Broken);
