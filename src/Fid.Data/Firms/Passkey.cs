using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>A passkey (WebAuthn) by which somebody proves who they are. Its secret never leaves their device.</summary>
public sealed class Passkey
{
    /// <summary>The credential's own id, as the device gave it.</summary>
    public required byte[] Id { get; init; }

    public required Guid AccountId { get; init; }

    /// <summary>What its user calls it.</summary>
    public required string Name { get; init; }

    /// <summary>The public key, as COSE has it (RFC 9052).</summary>
    public required byte[] PublicKey { get; init; }

    /// <summary>How often the device says it was used: one that goes back is a copy.</summary>
    public long Counter { get; set; }

    public required Instant MadeAt { get; init; }

    public Instant? UsedAt { get; set; }

    public const int LongestName = 60,
        LongestId = 1023;
}

internal sealed class PasskeyConfiguration : IEntityTypeConfiguration<Passkey>
{
    public void Configure(EntityTypeBuilder<Passkey> passkey)
    {
        passkey.ToTable("passkeys");
        passkey.HasOne<FidUser>().WithMany().HasForeignKey(p => p.AccountId).OnDelete(DeleteBehavior.Cascade);
        passkey.Property(p => p.Name).HasMaxLength(Passkey.LongestName);
        passkey.HasIndex(p => p.AccountId);
    }
}
