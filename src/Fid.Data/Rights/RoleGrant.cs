using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Rights;

/// <summary>A role given to an account, or by rule to everybody in a group, for a time or for good.</summary>
public sealed class RoleGrant
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>To whom; null where it is given to a group.</summary>
    public Guid? AccountId { get; init; }

    /// <summary>To which group; null where it is given to an account.</summary>
    public string? Group { get; init; }

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
        grant.Property(g => g.Group).HasMaxLength(RoleGrant.LongestRole);
        grant.ToTable(t => t.HasCheckConstraint("to_one", "(account_id is null) <> (\"group\" is null)"));
        grant.ToTable(t => t.HasCheckConstraint("in_order", "\"from\" is null or \"to\" is null or \"from\" <= \"to\""));
        grant.HasIndex(g => g.AccountId);
        // Given for good, it is given once.
        grant
            .HasIndex(g => new { g.AccountId, g.Role })
            .IsUnique()
            .HasFilter("account_id is not null and \"from\" is null and \"to\" is null")
            .HasDatabaseName("ix_role_grants_for_good");
        grant.HasIndex(g => g.Group).HasFilter("\"group\" is not null");
    }
}
