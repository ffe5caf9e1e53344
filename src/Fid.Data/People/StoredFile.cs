using Fid.Core.Fields;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.People;

/// <summary>A file somebody gave. The value of a field of the type file is its id; one that no value names is dropped after a day.</summary>
public sealed class StoredFile
{
    /// <summary>Random, so that nobody guesses another's.</summary>
    public Guid Id { get; init; } = Guid.NewGuid();

    public required string Name { get; init; }

    /// <summary>As its first bytes say: an image, a PDF, or "application/octet-stream" for all else.</summary>
    public required string MediaType { get; init; }

    /// <summary>The group of files it belongs to, by what is in it; null where it is in none.</summary>
    public FileGroup? Group { get; init; }

    public required byte[] Content { get; init; }

    public required int Size { get; init; }

    /// <summary>The SHA-256 of the content, by which the audit trail vouches for it.</summary>
    public required byte[] Hash { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }
}

internal sealed class StoredFileConfiguration : IEntityTypeConfiguration<StoredFile>
{
    public void Configure(EntityTypeBuilder<StoredFile> file)
    {
        file.ToTable("stored_files");
        file.Property(f => f.Name).HasMaxLength(200);
        file.Property(f => f.MediaType).HasMaxLength(100);
        file.Property(f => f.Group).HasConversion<string>().HasMaxLength(20).HasColumnName("kind");
    }
}
