using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Rights;

/// <summary>A role given to an account, for a time or for good. What is given by rule stands with the groups of the configuration.</summary>
public sealed class RoleGrant
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>To whom.</summary>
    public required Guid AccountId { get; init; }

    public required string Role { get; init; }

    /// <summary>The first day, included; null for ever before.</summary>
    public LocalDate? From { get; init; }

    /// <summary>The last day, included; null for good.</summary>
    public LocalDate? To { get; set; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    public const int LongestRole = 40;
}

internal sealed class RoleGrantConfiguration : IEntityTypeConfiguration<RoleGrant>
{
    public void Configure(EntityTypeBuilder<RoleGrant> grant)
    {
        grant.HasOne<FidUser>().WithMany().HasForeignKey(g => g.AccountId).OnDelete(DeleteBehavior.Cascade);
        grant.Property(g => g.Role).HasMaxLength(RoleGrant.LongestRole);
        grant.ToTable(t => t.HasCheckConstraint("in_order", "\"from\" is null or \"to\" is null or \"from\" <= \"to\""));
        grant.HasIndex(g => g.AccountId);
        // Given for good, it is given once.
        grant
            .HasIndex(g => new { g.AccountId, g.Role })
            .IsUnique()
            .HasFilter("\"from\" is null and \"to\" is null")
            .HasDatabaseName("ix_role_grants_for_good");
    }
}
