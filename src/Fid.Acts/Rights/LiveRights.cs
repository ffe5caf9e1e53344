using System.Collections.Concurrent;
using System.Text;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>The roles and groups that are live, with their formulas read.</summary>
public static class LiveRights
{
    private const int MostKept = 32;

    // By content, as fields are: reading them takes longer than a small request.
    private static readonly ConcurrentDictionary<string, RoleSet> Known = new(StringComparer.Ordinal);

    /// <summary>In SQL, the hash of the configuration that is live; null before the first.</summary>
    public const string HashSql = "(select hash from rights_versions order by version desc limit 1)";

    /// <summary>What is live.</summary>
    public static async Task<RoleSet> LiveAsync(FidDb db, CancellationToken cancellation) =>
        await OfAsync(db, await db.RightsVersions.OrderByDescending(v => v.Version).Select(v => v.Hash).FirstOrDefaultAsync(cancellation), cancellation);

    /// <summary>The roles and groups of a configuration whose hash was read with something else.</summary>
    /// <param name="hash">The hash; null for what ships.</param>
    public static async ValueTask<RoleSet> OfAsync(FidDb db, string? hash, CancellationToken cancellation)
    {
        if (hash is null)
            return RoleSet.Shipped;
        if (Known.TryGetValue(hash, out var known))
            return known;
        var text = await db.RightsVersions.Where(v => v.Hash == hash).Select(v => v.Configuration).FirstAsync(cancellation);
        if (Known.Count >= MostKept)
            Known.Clear();
        return Known[hash] = new RoleSet(Read(text));
    }

    /// <summary>A configuration as it is stored.</summary>
    public static RightsConfiguration Read(string text) =>
        RightsConfiguration.Read(Encoding.UTF8.GetBytes(text)).Answer ?? throw new InvalidOperationException("Stored roles cannot be read.");
}
