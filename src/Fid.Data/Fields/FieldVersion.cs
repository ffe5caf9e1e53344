using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Fields;

/// <summary>A published configuration of the record's fields. The one with the highest version is live; before the first, what ships.</summary>
public sealed class FieldVersion
{
    public required int Version { get; init; }

    /// <summary>The configuration as JSON.</summary>
    public required string Configuration { get; init; }

    /// <summary>SHA-256 over the configuration, by which servers know it again.</summary>
    public required string Hash { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    public string? Why { get; init; }
}

/// <summary>The draft of the next configuration. There is one, shared: the user who saves it second is told of the first.</summary>
public sealed class FieldDraft
{
    /// <summary>Always 1: there is one draft.</summary>
    public int Id { get; init; } = 1;

    public required string Configuration { get; set; }

    /// <summary>The version it was begun from.</summary>
    public required int BasedOn { get; set; }

    public required Instant At { get; set; }

    public required Guid ById { get; set; }

    public required string ByName { get; set; }

    /// <summary>Who asked for it to be published, where a second person has to agree; null while nobody has. Every save takes it back.</summary>
    public Guid? AskedById { get; set; }

    public string? AskedByName { get; set; }

    /// <summary>Changes with every save.</summary>
    public uint RowVersion { get; init; }
}

internal sealed class FieldVersionConfiguration : IEntityTypeConfiguration<FieldVersion>
{
    public void Configure(EntityTypeBuilder<FieldVersion> version)
    {
        version.HasKey(v => v.Version);
        version.Property(v => v.Version).ValueGeneratedNever();
        version.Property(v => v.Configuration).HasColumnType("jsonb");
        version.Property(v => v.Why).HasMaxLength(500);
    }
}

internal sealed class FieldDraftConfiguration : IEntityTypeConfiguration<FieldDraft>
{
    public void Configure(EntityTypeBuilder<FieldDraft> draft)
    {
        draft.Property(d => d.Id).ValueGeneratedNever();
        draft.ToTable(t => t.HasCheckConstraint("one_draft", "id = 1"));
        draft.Property(d => d.Configuration).HasColumnType("jsonb");
        draft.Property(d => d.RowVersion).IsRowVersion();
    }
}
