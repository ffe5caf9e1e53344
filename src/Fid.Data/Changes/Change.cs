using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Changes;

/// <summary>One save: who, when, from where, and why. Rows are added and never altered.</summary>
public sealed record Change
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Instant At { get; init; }

    public required Guid? ById { get; init; }

    /// <summary>The name the person had then.</summary>
    public required string ByName { get; init; }

    /// <summary>The place it was made from: "newHire", "record", "checklist", "demo".</summary>
    public required string Origin { get; init; }

    /// <summary>What was done, such as "task.done".</summary>
    public required string Action { get; init; }

    public string? Why { get; init; }

    /// <summary>The hire, employment or firm it concerns.</summary>
    public required Guid SubjectId { get; init; }

    /// <summary>The part of it that was changed, such as a task's key.</summary>
    public string? Part { get; init; }

    /// <summary>What was there before and after, as JSON, where it is kept nowhere else.</summary>
    public string? Details { get; init; }
}

internal sealed class ChangeConfiguration : IEntityTypeConfiguration<Change>
{
    public void Configure(EntityTypeBuilder<Change> change)
    {
        change.Property(c => c.Why).HasMaxLength(500);
        change.Property(c => c.Details).HasColumnType("jsonb");
        change.HasIndex(c => new { c.SubjectId, c.At });
    }
}
