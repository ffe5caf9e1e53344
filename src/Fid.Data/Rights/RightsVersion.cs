using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Rights;

/// <summary>The firm's own roles and groups as they were made live. The one with the highest version counts; before the first there are none.</summary>
public sealed class RightsVersion
{
    public required int Version { get; init; }

    /// <summary>The configuration as JSON.</summary>
    public required string Configuration { get; init; }

    /// <summary>SHA-256 over the configuration, by which servers know it again.</summary>
    public required string Hash { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    /// <summary>Who asked for it, where two were needed; null where one was enough.</summary>
    public string? AskedByName { get; init; }

    public string? Why { get; init; }
}

/// <summary>The draft of the next roles and groups. There is one, shared: the user who saves it second is told of the first.</summary>
public sealed class RightsDraft
{
    /// <summary>Always 1: there is one draft.</summary>
    public int Id { get; init; } = 1;

    public required string Configuration { get; set; }

    /// <summary>The version it was begun from.</summary>
    public required int BasedOn { get; set; }

    public required Instant At { get; set; }

    public required Guid ById { get; set; }

    public required string ByName { get; set; }

    /// <summary>Who asked for it to be made live, where a second person has to agree; null while nobody has. Every save takes it back.</summary>
    public Guid? AskedById { get; set; }

    public string? AskedByName { get; set; }

    /// <summary>Changes with every save.</summary>
    public uint RowVersion { get; init; }
}

internal sealed class RightsVersionConfiguration : IEntityTypeConfiguration<RightsVersion>
{
    public void Configure(EntityTypeBuilder<RightsVersion> version)
    {
        version.HasKey(v => v.Version);
        version.Property(v => v.Version).ValueGeneratedNever();
        version.Property(v => v.Configuration).HasColumnType("jsonb");
        version.Property(v => v.Why).HasMaxLength(500);
    }
}

internal sealed class RightsDraftConfiguration : IEntityTypeConfiguration<RightsDraft>
{
    public void Configure(EntityTypeBuilder<RightsDraft> draft)
    {
        draft.Property(d => d.Id).ValueGeneratedNever();
        draft.ToTable(t => t.HasCheckConstraint("one_rights_draft", "id = 1"));
        draft.Property(d => d.Configuration).HasColumnType("jsonb");
        draft.Property(d => d.RowVersion).IsRowVersion();
    }
}
