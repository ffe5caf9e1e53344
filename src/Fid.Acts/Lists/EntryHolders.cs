using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Lists;

/// <summary>How many people hold each entry of a list, kept in memory and brought up to date by what changed since: counting everybody
/// for each page of a list would grow with the firm.</summary>
public sealed class EntryHolders : IDisposable
{
    private readonly SemaphoreSlim _oneAtATime = new(1);
    private readonly Dictionary<string, Kept> _kept = new(StringComparer.Ordinal);

    /// <summary>How many hold each code now or will from a later day on, by code; somebody who holds it twice counts once.</summary>
    /// <param name="fields">The fields of the record that hold entries of the list.</param>
    public async Task<Dictionary<string, int>> CountAsync(FidDb db, IReadOnlyCollection<string> fields, LocalDate today, CancellationToken cancellation)
    {
        await _oneAtATime.WaitAsync(cancellation);
        try
        {
            // What is committed after it is read the next time, even where some of it is seen already.
            var last = await ChangedOwners.LastPlaceAsync(db, cancellation);
            var holders = new HashSet<(Guid, string)>();
            foreach (var field in fields)
            foreach (var (owner, held) in await UpToDateAsync(db, field, last, cancellation))
            foreach (var (code, until) in held)
                if (until is null || until > today)
                    holders.Add((owner, code));
            return holders.CountBy(h => h.Item2, StringComparer.Ordinal).ToDictionary(StringComparer.Ordinal);
        }
        finally
        {
            _oneAtATime.Release();
        }
    }

    public void Dispose() => _oneAtATime.Dispose();

    private async Task<Dictionary<Guid, List<(string Code, LocalDate? Until)>>> UpToDateAsync(FidDb db, string field, long last, CancellationToken cancellation)
    {
        if (_kept.TryGetValue(field, out var kept) && kept.Position == last)
            return kept.Holders;
        var changed = kept is null ? null : await ChangedOwners.SinceAsync(db, [field], kept.Position, cancellation);
        if (changed is null or { Length: > ChangedOwners.MostToFollow })
            (kept, changed) = (new Kept(0, []), null);
        var rows = changed is { Length: 0 }
            ? []
            : await db
                .Database.SqlQuery<Held>(
                    $"""
                    select owner_id as owner, code, case when upper_inf(effective) then null else upper(effective) end as until from record_values
                    cross join lateral jsonb_array_elements_text(case jsonb_typeof(value) when 'array' then value else jsonb_build_array(value) end) code
                    where field = {field} and upper_inf(known) and ({changed is null} or owner_id = any({changed ?? []}))
                    """
                )
                .ToListAsync(cancellation);
        foreach (var owner in changed ?? [])
            kept!.Holders.Remove(owner);
        foreach (var row in rows)
        {
            if (!kept!.Holders.TryGetValue(row.Owner, out var held))
                kept.Holders[row.Owner] = held = [];
            held.Add((row.Code, row.Until));
        }
        _kept[field] = kept! with { Position = last };
        return kept.Holders;
    }

    private sealed record Kept(long Position, Dictionary<Guid, List<(string Code, LocalDate? Until)>> Holders);

    private sealed record Held(Guid Owner, string Code, LocalDate? Until);
}
