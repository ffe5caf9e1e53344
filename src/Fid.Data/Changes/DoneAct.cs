using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Changes;

/// <summary>That an act was done under a key, written in the transaction of the act: sent again under the same key, it is not done
/// a second time, whatever became of the first answer.</summary>
public sealed class DoneAct
{
    public required Guid UserId { get; init; }

    /// <summary>Chosen by the browser, for one act.</summary>
    public required Guid Key { get; init; }

    /// <summary>SHA-256 of what was asked: one key is for one request.</summary>
    public required byte[] Request { get; init; }

    public required Instant At { get; init; }
}

internal sealed class DoneActConfiguration : IEntityTypeConfiguration<DoneAct>
{
    public void Configure(EntityTypeBuilder<DoneAct> act)
    {
        act.ToTable("done_acts");
        act.HasKey(a => new { a.UserId, a.Key });
        act.HasIndex(a => a.At);
    }
}
