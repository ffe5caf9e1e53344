using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.PayRuns;

/// <summary>What is to be done for a run of a pay group, as its template had it when the checklist was begun.</summary>
public sealed class RunChecklist
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The code of the pay group.</summary>
    public required string PayGroup { get; init; }

    /// <summary>The first day of the run's period.</summary>
    public required LocalDate Period { get; init; }

    public required string TemplateCode { get; init; }

    public required int TemplateVersion { get; init; }

    /// <summary>The layers it was made of, lowest first, each with its version: "template:pay-run@2".</summary>
    public required string[] Layers { get; init; }

    public List<RunTask> Tasks { get; init; } = [];
}

/// <summary>A task of a pay run's checklist.</summary>
public sealed class RunTask : ChecklistTask
{
    public Guid ChecklistId { get; init; }

    /// <summary>The task of a run that a template's task comes to.</summary>
    public static RunTask Of(HireTask task) =>
        new()
        {
            Key = task.Key,
            Position = task.Position,
            Name = task.Name,
            NameDe = task.NameDe,
            StageKey = task.StageKey,
            Owner = task.Owner,
            CalendarCode = task.CalendarCode,
            Work = task.Work,
            OpensAnchor = task.OpensAnchor,
            OpensAmount = task.OpensAmount,
            OpensUnit = task.OpensUnit,
            DueAnchor = task.DueAnchor,
            DueAmount = task.DueAmount,
            DueUnit = task.DueUnit,
            After = task.After,
            Lags = task.Lags,
            Required = task.Required,
            Instructions = task.Instructions,
            InstructionsDe = task.InstructionsDe,
        };
}

internal sealed class RunChecklistConfiguration : IEntityTypeConfiguration<RunChecklist>, IEntityTypeConfiguration<RunTask>
{
    public void Configure(EntityTypeBuilder<RunChecklist> checklist)
    {
        checklist.Property(c => c.PayGroup).HasMaxLength(40);
        checklist.Property(c => c.TemplateCode).HasMaxLength(40);
        checklist.HasMany(c => c.Tasks).WithOne().HasForeignKey(t => t.ChecklistId).OnDelete(DeleteBehavior.Cascade);
        checklist.HasIndex(c => new { c.PayGroup, c.Period }).IsUnique();
    }

    public void Configure(EntityTypeBuilder<RunTask> task)
    {
        task.Property(t => t.Name).HasMaxLength(ChecklistTask.LongestName);
        task.Property(t => t.NameDe).HasMaxLength(ChecklistTask.LongestName);
        task.Property(t => t.SkippedWhy).HasMaxLength(ChecklistTask.LongestReason);
        task.HasIndex(t => new { t.ChecklistId, t.Key }).IsUnique();
        // By this the tasks of a team or a person are found that are still to be done.
        task.HasIndex(t => t.Owner).HasOperators("text_pattern_ops").HasFilter("done is null and skipped_why is null");
    }
}
