using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace Fid.Acts.Plans;

/// <summary>The tasks of hires as they were last read. What is kept of a hire is used only while the database says that none of
/// its tasks was written since, so it is never older than a reading would be, and every instance of the server may keep its own.</summary>
public sealed class OpenTaskCache : IDisposable
{
    // Some 100 MB at most; the hires not asked for the longest go first.
    private const int MostTasks = 250_000;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostTasks });

    /// <summary>The tasks of some hires, in their order, by hire; a hire that has none is left out.</summary>
    public async Task<Dictionary<Guid, IReadOnlyList<TaskRow>>> LoadAsync(FidDb db, Guid[] hires, CancellationToken cancellation)
    {
        // A row's xmin is the transaction that wrote it: a task written again has another, one added or gone changes what all come to.
        var written = await db
            .Database.SqlQuery<Written>(
                $"""
                select hire_id, count(*)::int as tasks, bit_xor(hashtextextended(key || ' ' || xmin::text, 0)) as versions
                from hire_tasks where hire_id = any({hires}) group by hire_id
                """
            )
            .ToListAsync(cancellation);
        var found = new Dictionary<Guid, IReadOnlyList<TaskRow>>(written.Count);
        var changed = new List<Written>();
        foreach (var now in written)
        {
            if (_kept.TryGetValue(now.HireId, out Kept? kept) && kept!.Written == now)
                found[now.HireId] = kept.Tasks;
            else
                changed.Add(now);
        }
        if (changed.Count == 0)
            return found;
        // Should one be written between the two readings, it is kept under what it was before, and read again the next time.
        var read = await HiresUnderWay.TasksAsync(db, [.. changed.Select(c => c.HireId)], cancellation);
        foreach (var now in changed)
        {
            if (!read.TryGetValue(now.HireId, out var tasks))
                continue;
            found[now.HireId] = tasks;
            _kept.Set(now.HireId, new Kept(now, tasks), new MemoryCacheEntryOptions { Size = Math.Max(1, tasks.Count) });
        }
        return found;
    }

    public void Dispose() => _kept.Dispose();

    private sealed record Written(Guid HireId, int Tasks, long Versions);

    private sealed record Kept(Written Written, IReadOnlyList<TaskRow> Tasks);
}
