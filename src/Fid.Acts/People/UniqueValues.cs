using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Values that only one person may have. What somebody had in an earlier stint is theirs to have again.</summary>
public sealed class UniqueValues(FidDb db, SensitiveValues sensitive)
{
    /// <summary>What is to be said of a field whose value is somebody else's.</summary>
    public static Problem Taken(string field) => new($"/{field}", "not-unique", "Another record has this already. Enter one that nobody has.");

    /// <summary>Which of some values somebody else has, or an earlier one among them claims for another: their places, from 0, in order.
    /// Looked up in two questions, however many there are.</summary>
    public async Task<IReadOnlyList<int>> FindTakenAsync(IReadOnlyList<UniqueClaim> claims, CancellationToken cancellation)
    {
        if (claims.Count == 0)
            return [];
        var (keys, first) = (await KeysAsync(claims, cancellation), new Dictionary<(string, string), Guid>());
        var had = await HoldersAsync(claims, keys, cancellation);
        return
        [
            .. Enumerable
                .Range(0, claims.Count)
                .Where(i => (!first.TryAdd(keys[i], claims[i].Person) && first[keys[i]] != claims[i].Person) || had[keys[i]].Any(p => p != claims[i].Person)),
        ];
    }

    /// <summary>For each of some values the people who have it now.</summary>
    public async Task<IReadOnlyList<IReadOnlyCollection<Guid>>> HoldersAsync(IReadOnlyList<UniqueClaim> claims, CancellationToken cancellation)
    {
        if (claims.Count == 0)
            return [];
        var keys = await KeysAsync(claims, cancellation);
        var had = await HoldersAsync(claims, keys, cancellation);
        return [.. keys.Select(k => had[k].Distinct().ToArray())];
    }

    // By the field, and what is equal for equal values of it: sealed ones are told by the start of their seals.
    private async Task<List<(string Field, string Said)>> KeysAsync(IReadOnlyList<UniqueClaim> claims, CancellationToken cancellation)
    {
        var keys = new List<(string, string)>(claims.Count);
        foreach (var (field, value, _) in claims)
            keys.Add(
                (
                    field.Key,
                    !field.Sensitive ? JsonSerializer.Serialize(value)
                    : SealedText.IsSealed(value) ? SealedText.Comparable(value)
                    : SealedText.Start(await sensitive.HashAsync(db, field.Key, value.ToString(), cancellation))
                )
            );
        return keys;
    }

    private async Task<ILookup<(string Field, string Said), Guid>> HoldersAsync(
        IReadOnlyList<UniqueClaim> claims,
        List<(string Field, string Said)> keys,
        CancellationToken cancellation
    )
    {
        var open = claims.Where(c => !c.Field.Sensitive).ToList();
        var closed = keys.Where((_, i) => claims[i].Field.Sensitive).ToList();
        var holders = await HoldersAsync(
            open.ConvertAll(c => c.Field.Key),
            open.ConvertAll(c => c.Value.GetRawText()),
            closed.ConvertAll(k => k.Field),
            closed.ConvertAll(k => k.Said),
            cancellation
        );
        return holders.ToLookup(h => (h.Field, h.Said), h => h.Person);
    }

    private async Task<List<Holder>> HoldersAsync(
        List<string> fields,
        List<string> values,
        List<string> sealedFields,
        List<string> starts,
        CancellationToken cancellation
    )
    {
        var holders = new List<Holder>();
        // Of people who were found to be one, either is meant by what belongs to the other.
        if (fields.Count > 0)
        {
            var open = await db
                .Database.SqlQuery<OpenHolder>(
                    $"""
                    select distinct v.field, v.value, coalesce(e.person_id, m.kept_id, v.owner_id) as person
                      from unnest({fields.ToArray()}, {values.ToArray()}) w(field, value)
                    join record_values v on v.field = w.field and md5(v.value #>> array[]::text[]) = md5(w.value::jsonb #>> array[]::text[])
                      and v.value = w.value::jsonb
                    left join employments e on e.id = v.owner_id left join person_merges m on m.other_id = v.owner_id and not m.undone where upper_inf(v.known)
                    """
                )
                .ToListAsync(cancellation);
            holders.AddRange(open.Select(h => new Holder(h.Field, JsonSerializer.Serialize(h.Value), h.Person)));
        }
        if (starts.Count > 0)
            holders.AddRange(
                await db
                    .Database.SqlQuery<Holder>(
                        $"""
                        select distinct v.field, v.sealed_start as said, coalesce(e.person_id, m.kept_id, v.owner_id) as person
                          from unnest({sealedFields.ToArray()}, {starts.ToArray()}) w(field, start)
                        join record_values v on v.field = w.field and v.sealed_start = w.start
                        left join employments e on e.id = v.owner_id left join person_merges m on m.other_id = v.owner_id and not m.undone
                          where upper_inf(v.known)
                        """
                    )
                    .ToListAsync(cancellation)
            );
        return holders;
    }

    private sealed record OpenHolder(string Field, JsonElement Value, Guid Person);

    private sealed record Holder(string Field, string Said, Guid Person);
}

/// <summary>A value that is to be somebody's alone.</summary>
/// <param name="Value">As it was entered, or as it is stored.</param>
/// <param name="Person">Whose it is to be.</param>
public sealed record UniqueClaim(FieldDefinition Field, JsonElement Value, Guid Person);
