using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>A link by which the user of an account sets its password, once, until it runs out. An account has one at a time.</summary>
public sealed class AccountLink
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid UserId { get; init; }

    /// <summary>SHA-256 of what the link holds: whoever reads the database can use none.</summary>
    public required byte[] Hash { get; init; }

    public required Instant MadeAt { get; init; }

    /// <summary>From when on it opens nothing.</summary>
    public required Instant EndsAt { get; init; }
}

internal sealed class AccountLinkConfiguration : IEntityTypeConfiguration<AccountLink>
{
    public void Configure(EntityTypeBuilder<AccountLink> link)
    {
        link.ToTable("account_links");
        link.HasIndex(l => l.Hash).IsUnique();
        link.HasIndex(l => l.UserId).IsUnique();
        link.HasOne<FidUser>().WithOne().HasForeignKey<AccountLink>(l => l.UserId).OnDelete(DeleteBehavior.Cascade);
    }
}
