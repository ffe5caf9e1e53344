using Fid.Core.Lists;
using Fid.Core.Texts;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Lists;

/// <summary>
/// An entry of one of the firm's lists. All lists are kept alike, as their definitions in Core describe them. Records, templates
/// and other entries refer to one by its code, which never changes once given; codes are unique without regard to capitals.
/// </summary>
public sealed class ListEntry
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The list's key.</summary>
    public required string List { get; init; }

    public required string Code { get; init; }

    public required string Name { get; set; }

    public string? NameDe { get; set; }

    /// <summary>What it says about itself, by column key, as <see cref="EntryJson"/> writes it.</summary>
    public required string Values { get; set; }

    /// <summary>Kept for those who have it, offered to nobody.</summary>
    public bool Retired { get; set; }

    /// <summary>Changes with every save of the row.</summary>
    public uint Version { get; init; }

    /// <summary>The entry as Core sees it.</summary>
    public EntryContent Content() => new(Code, Name, NameDe, EntryJson.Read(ShippedLists.Get(List), Values));

    /// <summary>The entry for a content that is new.</summary>
    public static ListEntry Of(ListDefinition list, EntryContent content) =>
        new()
        {
            List = list.Key,
            Code = content.Code,
            Name = content.Name,
            NameDe = content.NameDe,
            Values = EntryJson.Write(list, content.Values),
        };

    /// <summary>Takes over names and values.</summary>
    public void Take(EntryContent content)
    {
        Name = content.Name;
        NameDe = content.NameDe;
        Values = EntryJson.Write(ShippedLists.Get(List), content.Values);
    }
}

/// <summary>Finding entries.</summary>
public static class ListEntries
{
    /// <summary>The entry of a list with a code, capitals and surrounding space aside: one or none.</summary>
    public static IQueryable<ListEntry> Coded(this IQueryable<ListEntry> entries, string list, string code)
    {
        var wanted = code.Trim().ToLowerInvariant();
#pragma warning disable CA1304, CA1311, CA1862 // translated to lower(), which the index is on
        return entries.Where(e => e.List == list && e.Code.ToLower() == wanted);
#pragma warning restore CA1304, CA1311, CA1862
    }
}

internal sealed class ListEntryConfiguration : IEntityTypeConfiguration<ListEntry>
{
    public void Configure(EntityTypeBuilder<ListEntry> entry)
    {
        entry.Property(e => e.Code).HasMaxLength(EntryCheck.LongestCode);
        entry.Property(e => e.Name).HasMaxLength(TextRules.Longest);
        entry.Property(e => e.NameDe).HasMaxLength(TextRules.Longest);
        entry.Property(e => e.Values).HasColumnType("jsonb");
        entry.Property(e => e.Version).IsRowVersion();
        // The migration makes the index that finds codes, and keeps them unique, without regard to capitals: EF has no words for it.
    }
}
