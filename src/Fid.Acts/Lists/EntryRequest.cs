using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>An entry to save.</summary>
/// <param name="Code">For a new one; that of an entry that is there never changes.</param>
/// <param name="Values">Values by column key; what is left out is empty.</param>
public sealed record EntryRequest(string Code, string Name, JsonObject Values, string? NameDe = null)
{
    /// <summary>The entry as it was entered, with what is wrong with it.</summary>
    /// <param name="code">The code it is to have.</param>
    public async Task<ReadEntry> ReadAsync(FidDb db, ListDefinition list, string code, CancellationToken cancellation)
    {
        var index = await EntryIndex.LoadAsync(db, list, cancellation);
        index.Add(list.Key, code, Name, null); // it may be chosen as its own parent: that is a loop, not an unknown entry
        var read = EntryReader.Read(
            list,
            code,
            Name,
            NameDe,
            c => Values[c.Key] is { } json ? ColumnValue.FromJson(c, JsonSerializer.SerializeToElement(json)) : CellValue.Empty,
            index.Find
        );
        var unknown = Values.Where(v => list.Find(v.Key) is null).Select(v => new EntryProblem(v.Key, "unknown-column", $"The list has no column {v.Key}."));
        return read with { Problems = [.. read.Problems, .. unknown] };
    }

    /// <summary>What is wrong with an entry, by pointer into a request.</summary>
    public static IReadOnlyList<Problem> Problems(IEnumerable<EntryProblem> problems) =>
        [.. problems.Select(p => new Problem(PointerOf(p.Column), p.Code, p.Message))];

    /// <summary>The list and the entry with a code, capitals aside; null where there is none.</summary>
    public static async Task<(ListDefinition List, ListEntry Entry)?> FindAsync(
        IQueryable<ListEntry> entries,
        string list,
        string code,
        CancellationToken cancellation
    ) =>
        ShippedLists.Find(list) is { } definition && await entries.Coded(list, code).FirstOrDefaultAsync(cancellation) is { } entry
            ? (definition, entry)
            : null;

    private static string PointerOf(string column) =>
        column switch
        {
            EntryReader.Code => "/code",
            EntryReader.Name => "/name",
            EntryReader.NameDe => "/nameDe",
            _ => $"/values/{column}",
        };
}
