using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Fid.Acts.Rights;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Fields;

/// <summary>The configuration of the record's fields that is live, with its formulas and patterns read.</summary>
public sealed class LiveFieldsLoader(FidDb db)
{
    private const int MostKept = 32;

    // By content: reading all formulas takes longer than everything else a small request does.
    private static readonly ConcurrentDictionary<string, FieldSet> Known = new(StringComparer.Ordinal);

    private LiveFields? _live;

    /// <summary>The live configuration; the same one for as long as this object lives.</summary>
    public async ValueTask<LiveFields> LiveAsync(CancellationToken cancellation = default)
    {
        if (_live is not null)
            return _live;
        return await LiveAsync(await db.Database.SqlQueryRaw<LiveNow>(NowSql).SingleAsync(cancellation), cancellation);
    }

    /// <summary>The live configuration, whose version was read with something else.</summary>
    public async ValueTask<LiveFields> LiveAsync(LiveNow now, CancellationToken cancellation)
    {
        var stages = now.Stages.ToList();
        var roles = await LiveRights.OfAsync(db, now.Rights, cancellation);
        if (now is not { Version: { } version, Hash: { } hash })
            return _live = new LiveFields(0, FieldConfiguration.Shipped.Sections, Compile("shipped", FieldConfiguration.Shipped, stages), roles);
        if (Others.TryGetValue(hash, out var others) && Known.TryGetValue(Key(hash, stages), out var known))
            return _live = new LiveFields(version, others.Sections, known, roles) { Approvals = others.Approvals };
        var text = await db.FieldVersions.Where(v => v.Version == version).Select(v => v.Configuration).SingleAsync(cancellation);
        var configuration = FieldConfiguration.Read(Encoding.UTF8.GetBytes(text)).Answer
            ?? throw new InvalidOperationException($"Version {version} of the fields cannot be read.");
        var approvals = LiveApprovals.Of(configuration.Approvals);
        Others[hash] = (configuration.Sections, approvals);
        return _live = new LiveFields(version, configuration.Sections, Compile(hash, configuration, stages), roles) { Approvals = approvals };
    }

    /// <summary>Asks which configuration is live: one row, a <see cref="LiveNow"/>.</summary>
    public const string NowSql =
        "select v.version, v.hash, array(select key from stages where occasion = 'Arrival' order by position) as stages, "
        + LiveRights.HashSql
        + " as rights from (select 1) one left join (select version, hash from field_versions order by version desc limit 1) v on true";

    /// <summary>The SHA-256 of a configuration, in hexadecimal digits.</summary>
    public static string HashOf(ReadOnlySpan<byte> configuration) => Convert.ToHexStringLower(SHA256.HashData(configuration));

    // What a configuration holds besides the fields.
    private static readonly ConcurrentDictionary<string, (IReadOnlyList<FieldSection> Sections, LiveApprovals Approvals)> Others = new(StringComparer.Ordinal);

    private static FieldSet Compile(string hash, FieldConfiguration configuration, List<string> stages)
    {
        if (Known.Count >= MostKept)
        {
            Known.Clear();
            Others.Clear();
        }
        return Known.GetOrAdd(Key(hash, stages), _ =>
            FieldSet.Read(configuration.Fields, stages).Answer
            ?? throw new InvalidOperationException("A published configuration has formulas that cannot be read.")
        );
    }

    private static string Key(string hash, List<string> stages) => $"{hash} {string.Join(' ', stages)}";
}

/// <summary>Which configuration is live: its version and hash, null for what ships; the stages fields speak of; and the hash of the roles and
/// groups that are live, null for what ships.</summary>
public sealed record LiveNow(int? Version, string? Hash, string[] Stages, string? Rights);

/// <summary>A configuration that is live.</summary>
/// <param name="Version">Its version; 0 for what ships.</param>
/// <param name="Sections">The sections, in order.</param>
/// <param name="Set">The fields.</param>
/// <param name="Roles">The roles that see and edit them, with the groups people belong to by what their records say.</param>
public sealed record LiveFields(int Version, IReadOnlyList<FieldSection> Sections, FieldSet Set, RoleSet Roles)
{
    /// <summary>Who has to agree to which changes.</summary>
    public LiveApprovals Approvals { get; init; } = LiveApprovals.None;

    /// <summary>The list whose entries a field holds, or null.</summary>
    public string? ListOf(string field) => Set.Find(field)?.List;

    /// <summary>The stage a hire is in: the first with required tasks open; the last where none has, or nobody is being hired.</summary>
    public string? StageOf(IReadOnlyCollection<string> open) => Set.Stages.FirstOrDefault(open.Contains) ?? (Set.Stages is [.., var last] ? last : null);

    /// <summary>The fields that hold entries of a list.</summary>
    public string[] FieldsOf(string list) => [.. Set.FieldsAndColumns.Where(f => f.List == list).Select(f => f.Key)];
}
