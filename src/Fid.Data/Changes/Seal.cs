using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Changes;

/// <summary>
/// The link of a change in the chain: the SHA-256 of the link before and of all the change says and did to values of records.
/// The database itself adds it when the transaction of the change ends, and takes it from nobody.
/// </summary>
public sealed class Seal
{
    /// <summary>1 for the first, without gaps.</summary>
    public required long Position { get; init; }

    public required Guid ChangeId { get; init; }

    /// <summary>32 bytes.</summary>
    public required byte[] Hash { get; init; }
}

internal sealed class SealConfiguration : IEntityTypeConfiguration<Seal>
{
    public void Configure(EntityTypeBuilder<Seal> seal)
    {
        seal.ToTable("seals");
        seal.HasKey(s => s.Position);
        seal.Property(s => s.Position).ValueGeneratedNever();
        // No foreign key: that an entry is gone is for the chain to tell.
        seal.HasIndex(s => s.ChangeId).IsUnique();
    }
}
