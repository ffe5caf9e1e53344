using Fid.Core.Texts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>The firm's sites by what recruiting may call them: their codes or names, however they are capitalised or accented.</summary>
public sealed class SiteNames
{
    private readonly List<(string Code, string Name, string? NameDe)> _sites;

    private SiteNames(List<(string, string, string?)> sites) => _sites = sites;

    /// <summary>No sites at all.</summary>
    public static SiteNames None { get; } = new([]);

    public static async Task<SiteNames> LoadAsync(FidDb db, CancellationToken cancellation) =>
        new(
            (
                await db
                    .ListEntries.AsNoTracking()
                    .Where(e => e.List == "sites" && !e.Retired)
                    .Select(e => new
                    {
                        e.Code,
                        e.Name,
                        e.NameDe,
                    })
                    .ToListAsync(cancellation)
            ).ConvertAll(e => (e.Code, e.Name, e.NameDe))
        );

    /// <summary>The code of the site that is called something; null where none is.</summary>
    public string? Find(string? called) =>
        called is null
            ? null
            : _sites
                .Find(s =>
                    TextRules.AreAlike(s.Code, called) || TextRules.AreAlike(s.Name, called) || (s.NameDe is { } german && TextRules.AreAlike(german, called))
                )
                .Code;
}
