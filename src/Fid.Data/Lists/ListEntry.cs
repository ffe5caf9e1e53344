using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Lists;

/// <summary>An entry of one of the firm's lists. Records refer to it by its code, which never changes once given.</summary>
public abstract class ListEntry
{
    public const int LongestCode = 40;
    public const int LongestName = 200;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required string Code { get; init; }

    public required string Name { get; set; }

    /// <summary>Kept for those who have it, offered to nobody.</summary>
    public bool Retired { get; set; }
}

internal abstract class ListEntryConfiguration<T> : IEntityTypeConfiguration<T>
    where T : ListEntry
{
    public virtual void Configure(EntityTypeBuilder<T> entry)
    {
        entry.Property(e => e.Code).HasMaxLength(ListEntry.LongestCode);
        entry.Property(e => e.Name).HasMaxLength(ListEntry.LongestName);
        entry.HasIndex(e => e.Code).IsUnique();
    }
}
