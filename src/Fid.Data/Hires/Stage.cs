using Fid.Core.Checklists;
using Fid.Core.Planning;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Hires;

/// <summary>A stage of the firm's checklists.</summary>
public sealed class Stage
{
    /// <summary>The key of the stage of a pay run whose tasks come after it is handed over.</summary>
    public const string AfterHandOver = "run-after";

    public required string Key { get; init; }

    /// <summary>Which checklists go through it.</summary>
    public Occasion Occasion { get; init; }

    public required string Name { get; set; }

    /// <summary>Its German name; null where there is none.</summary>
    public string? NameDe { get; set; }

    /// <summary>Its name in the language of the user who reads.</summary>
    public string Called => ReaderLanguage.Choose(Name, NameDe);

    public required int Position { get; set; }

    public string? OpensAnchor { get; set; }

    public int OpensAmount { get; set; }

    public OffsetUnit OpensUnit { get; set; }

    public string[] WaitsFor { get; set; } = [];

    public PlanStage ToPlan() => new(Key, OpensAnchor is null ? null : new PlanOffset(OpensAnchor, OpensAmount, OpensUnit), WaitsFor);
}

internal sealed class StageConfiguration : IEntityTypeConfiguration<Stage>
{
    public void Configure(EntityTypeBuilder<Stage> stage)
    {
        stage.HasKey(s => s.Key);
        stage.Property(s => s.Occasion).HasConversion<string>().HasMaxLength(20).HasDefaultValue(Occasion.Arrival);
    }
}
