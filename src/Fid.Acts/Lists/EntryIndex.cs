using Fid.Core.Lists;
using Fid.Core.Texts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>Finds entries of lists by code or name, and people by employee number, for values that refer to them.</summary>
public sealed class EntryIndex
{
    private readonly Dictionary<string, Dictionary<string, string>> _codes = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Dictionary<string, string?>> _names = new(StringComparer.Ordinal);

    /// <summary>All that the columns of a list can refer to.</summary>
    public static async Task<EntryIndex> LoadAsync(FidDb db, ListDefinition list, CancellationToken cancellation)
    {
        var index = new EntryIndex();
        var lists = list.Columns.Where(c => c.List is not null).Select(c => c.List!).Distinct().ToArray();
        var entries = await db
            .ListEntries.Where(e => lists.Contains(e.List))
            .Select(e => new
            {
                e.List,
                e.Code,
                e.Name,
                e.NameDe,
            })
            .ToListAsync(cancellation);
        foreach (var entry in entries)
            index.Add(entry.List, entry.Code, entry.Name, entry.NameDe);
        if (list.Columns.Any(c => c.Type == ColumnType.Heads))
            foreach (var number in await db.Employments.Select(e => e.Number).ToListAsync(cancellation))
                index.Add(EntryCheck.People, number, number, null);
        return index;
    }

    /// <summary>Makes an entry known.</summary>
    public void Add(string list, string code, string name, string? nameDe)
    {
        Of(_codes, list).TryAdd(code, code);
        Name(name);
        if (nameDe is not null)
            Name(nameDe);

        // A name that two entries share leads to neither.
        void Name(string spelling)
        {
            var names = Of(_names, list);
            var folded = TextRules.Fold(spelling);
            names[folded] = names.TryGetValue(folded, out var other) && other != code ? null : code;
        }
    }

    /// <summary>The code of an entry by its code, capitals and surrounding space aside, or by its name in any language; null where
    /// there is none, or more than one of that name.</summary>
    public string? Find(string list, string text)
    {
        if (_codes.TryGetValue(list, out var codes) && codes.TryGetValue(text.Trim(), out var code))
            return code;
        return _names.TryGetValue(list, out var names) ? names.GetValueOrDefault(TextRules.Fold(text)) : null;
    }

    /// <summary>The code of the entry that is nearest by spelling; null where none comes near.</summary>
    public string? FindNearest(string list, string text) => Nearest.Find(text, Spellings(list));

    private IEnumerable<(string, string)> Spellings(string list) =>
        _codes
            .GetValueOrDefault(list, [])
            .Select(c => (c.Key, c.Value))
            .Concat(_names.GetValueOrDefault(list, []).Where(n => n.Value is not null).Select(n => (n.Key, n.Value!)));

    private static Dictionary<string, T> Of<T>(Dictionary<string, Dictionary<string, T>> all, string list)
    {
        if (!all.TryGetValue(list, out var there))
            all[list] = there = new Dictionary<string, T>(StringComparer.OrdinalIgnoreCase);
        return there;
    }
}
