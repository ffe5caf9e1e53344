using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Templates;

/// <summary>A task of the firm that several templates share. A change of it is a new version of each template that has it.</summary>
public sealed class SharedTask
{
    public required string Key { get; init; }

    /// <summary>What a template's task has to begin with, by property.</summary>
    public required IReadOnlyDictionary<string, JsonElement> Properties { get; set; }

    /// <summary>Changes with every save.</summary>
    public uint RowVersion { get; init; }
}

internal sealed class SharedTaskConfiguration : IEntityTypeConfiguration<SharedTask>
{
    public void Configure(EntityTypeBuilder<SharedTask> task)
    {
        task.HasKey(t => t.Key);
        task.Property(t => t.Key).HasMaxLength(60);
        task.Property(t => t.RowVersion).IsRowVersion();
        task.Property(t => t.Properties).AsJson();
    }
}
