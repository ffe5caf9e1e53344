using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>Lets go of what came with sheets once nobody needs it: of imports that are done, undone, failed or left lying.</summary>
public static class ImportRetention
{
    /// <summary>How long a committed import can be undone, and one that was not committed be gone on with.</summary>
    public static readonly Duration Kept = Duration.FromDays(30);

    /// <summary>Clears what is older than that. That an import was, and which entries of lists came with it, stays.</summary>
    /// <returns>How many imports were cleared.</returns>
    public static async Task<int> ClearAsync(FidDb db, Instant now, CancellationToken cancellation)
    {
        var before = now - Kept;
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var cleared = await db
            .Database.SqlQuery<Guid>(
                $"""
                update import_runs set sealed_key = null, state = case when state in ('Ready', 'Failed') then 'Dropped' else state end
                where sealed_key is not null and coalesce(committed_at, at) < {before}
                  and state in ('Ready', 'Failed', 'Dropped', 'Committed', 'Undone') returning id
                """
            )
            .ToListAsync(cancellation);
        await db.Database.ExecuteSqlAsync($"delete from import_pieces where run_id = any({cleared})", cancellation);
        await db.Database.ExecuteSqlAsync(
            $"""
            delete from import_rows r using import_runs u
            where u.id = r.run_id and u.id = any({cleared}) and (u.list = {PeopleTarget.Key} or u.list like {RowsTarget.Prefix
                + "%"} or u.state <> 'Committed' or r.entry_id is null)
            """,
            cancellation
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            update import_rows set cells = null, problems = null, code = null, name = null, name_de = null, values = null, before = null
              where run_id = any({cleared})
            """,
            cancellation
        );
        await transaction.CommitAsync(cancellation);
        return cleared.Count;
    }
}
