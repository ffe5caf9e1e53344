using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Exchange;

/// <summary>Something another system said, by whom and its own id of it: what was taken in once is not taken in again.</summary>
public sealed class ReceivedMessage
{
    public const int LongestId = 200;

    /// <summary>Who said it: a system, a connection, a device.</summary>
    public required string Source { get; init; }

    /// <summary>What the source calls it.</summary>
    public required string ExternalId { get; init; }

    /// <summary>SHA-256 of what it said last: the same said again changes nothing.</summary>
    public required byte[] Content { get; set; }

    public required Instant FirstAt { get; init; }

    /// <summary>When it said something else the last time.</summary>
    public required Instant ChangedAt { get; set; }
}

internal sealed class ReceivedMessageConfiguration : IEntityTypeConfiguration<ReceivedMessage>
{
    public void Configure(EntityTypeBuilder<ReceivedMessage> message)
    {
        message.ToTable("received");
        message.HasKey(m => new { m.Source, m.ExternalId });
        message.Property(m => m.Source).HasMaxLength(40);
        message.Property(m => m.ExternalId).HasMaxLength(ReceivedMessage.LongestId);
    }
}
