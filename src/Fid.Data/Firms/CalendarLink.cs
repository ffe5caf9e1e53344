using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>A private link by which a calendar program reads who arrives, as the user of an account sees it. An account has one at a time.</summary>
public sealed class CalendarLink
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid UserId { get; init; }

    /// <summary>SHA-256 of what the link holds: whoever reads the database can use none.</summary>
    public required byte[] Hash { get; init; }

    public required Instant MadeAt { get; init; }
}

internal sealed class CalendarLinkConfiguration : IEntityTypeConfiguration<CalendarLink>
{
    public void Configure(EntityTypeBuilder<CalendarLink> link)
    {
        link.ToTable("calendar_links");
        link.HasIndex(l => l.Hash).IsUnique();
        link.HasIndex(l => l.UserId).IsUnique();
        link.HasOne<FidUser>().WithOne().HasForeignKey<CalendarLink>(l => l.UserId).OnDelete(DeleteBehavior.Cascade);
    }
}
