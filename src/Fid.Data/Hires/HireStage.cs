using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>How a stage of a hire's checklist stands. What it is without a person's word follows from the tasks; that it is kept lets Fid tell
/// what became of it since.</summary>
public sealed class HireStage
{
    public required Guid HireId { get; init; }

    public required string StageKey { get; init; }

    /// <summary>The day on which it was found open; null while it is not.</summary>
    public LocalDate? Opened { get; set; }

    /// <summary>The day its gate passed; null while it has not.</summary>
    public LocalDate? Passed { get; set; }

    /// <summary>Whether a person has the say of its gate, not its tasks.</summary>
    public bool ByHand { get; set; }

    /// <summary>Who passed it, or opened it again.</summary>
    public string? By { get; set; }

    /// <summary>Why they did.</summary>
    public string? Why { get; set; }
}

internal sealed class HireStageConfiguration : IEntityTypeConfiguration<HireStage>
{
    public void Configure(EntityTypeBuilder<HireStage> stage)
    {
        stage.HasKey(s => new { s.HireId, s.StageKey });
        stage.HasOne<Hire>().WithMany().HasForeignKey(s => s.HireId).OnDelete(DeleteBehavior.Cascade);
        stage.HasIndex(s => s.HireId).HasFilter("by_hand");
        stage.Property(s => s.StageKey).HasMaxLength(100);
        stage.Property(s => s.By).HasMaxLength(HireTask.LongestName);
        stage.Property(s => s.Why).HasMaxLength(HireTask.LongestReason);
    }
}
