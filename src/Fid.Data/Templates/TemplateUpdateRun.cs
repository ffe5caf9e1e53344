using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Templates;

/// <summary>Hires that were brought to newer versions of their templates in one go, with what they were before, so that it can be undone.</summary>
public sealed class TemplateUpdateRun
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    /// <summary>Whether it has been undone.</summary>
    public bool Undone { get; set; }

    public required IReadOnlyList<HireBefore> Hires { get; set; }
}

/// <summary>What a hire was before an update.</summary>
/// <param name="ChangeId">The change of the record.</param>
/// <param name="Tasks">The tasks the update changed or took away, as they were.</param>
/// <param name="Added">Keys of the tasks it added.</param>
/// <param name="Entries">The entries, as they were.</param>
public sealed record HireBefore(Guid HireId, Guid ChangeId, int Version, string[] Layers, HireTask[] Tasks, string[] Added, HireEntry[] Entries);

internal sealed class TemplateUpdateRunConfiguration : IEntityTypeConfiguration<TemplateUpdateRun>
{
    public void Configure(EntityTypeBuilder<TemplateUpdateRun> run) => run.Property(r => r.Hires).AsJson();
}
