using System.Text.Json;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>The one way by which single entries of lists are written. What must hold between entries holds, also when two people
/// save at once: whoever writes to a list holds its lock to the end of the transaction.</summary>
public sealed class ListWriter(FidDb db)
{
    /// <summary>Puts an entry into the context, new or changed, with the change that tells of it. The caller holds the list's lock.</summary>
    /// <returns>What is wrong with it among the others, by column; empty when it was taken.</returns>
    public async Task<IReadOnlyList<EntryProblem>> PutAsync(
        ListDefinition list,
        EntryContent content,
        ListEntry? there,
        Author author,
        CancellationToken cancellation
    )
    {
        if (there is null && await db.ListEntries.AsNoTracking().Coded(list.Key, content.Code).FirstOrDefaultAsync(cancellation) is { } taken)
            return [new EntryProblem(EntryReader.Code, "duplicate-code", $"The code {taken.Code} is taken by {taken.Name}. Choose another.")];
        if (there is not null && ListConsistency.Against(list, there.Content(), content).ToList() is { Count: > 0 } lost)
            return lost;
        var others = await db.ListEntries.AsNoTracking().Where(e => e.List == list.Key && e.Code != content.Code).ToListAsync(cancellation);
        var wrong = ListConsistency.Between(list, [content, .. others.Select(o => o.Content())]).ToList();
        if (wrong.Count > 0)
            return
            [
                .. wrong.Select(w => new EntryProblem(list.Find(w.Column) is null ? EntryReader.Code : w.Column, w.Code, w.Message)).DistinctBy(p => p.Column),
            ];

        var before = there is null ? null : Describe(there);
        if (there is null)
            db.ListEntries.Add(there = ListEntry.Of(list, content));
        else
            there.Take(content);
        db.Changes.Add(author.Change(before is null ? "list.added" : "list.changed", there.Id, list.Key) with { Details = Details(before, Describe(there)) });
        return [];
    }

    /// <summary>Retires an entry, or brings it back.</summary>
    /// <returns>The change that tells of it.</returns>
    public static Change SetRetired(ListEntry entry, bool retired, Author author, string? why)
    {
        var before = Describe(entry);
        entry.Retired = retired;
        return author.Change(retired ? "list.retired" : "list.restored", entry.Id, entry.List, why) with { Details = Details(before, Describe(entry)) };
    }

    /// <summary>An entry before and after, for the audit trail.</summary>
    public static string Details(string? before, string? after) => $$"""{"before":{{before ?? "null"}},"after":{{after ?? "null"}}}""";

    /// <summary>An entry as the audit trail keeps it.</summary>
    public static string Describe(ListEntry entry) =>
        $$"""{"code":{{Text(entry.Code)}},"name":{{Text(entry.Name)}},"nameDe":{{Text(entry.NameDe)}},"retired":"""
        + $$"""{{(entry.Retired ? "true" : "false")}},"values":{{entry.Values}}}""";

    private static string Text(string? text) => JsonSerializer.Serialize(text);
}
