using Fid.Core.Planning;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A task of a hire's checklist, as its template had it when the hire was opened.</summary>
public sealed class HireTask
{
    /// <summary>Stands for the holiday calendar of the newcomer's own record, whichever that is when the plan is made.</summary>
    public const string OwnCalendar = "own";

    /// <summary>Before a team's code in an owner.</summary>
    public const string TeamPrefix = "team:";

    public Guid Id { get; init; } = Guid.CreateVersion7();

    public Guid HireId { get; init; }

    /// <summary>Unique in the hire.</summary>
    public required string Key { get; init; }

    public required int Position { get; init; }

    public required string Name { get; set; }

    public required string StageKey { get; set; }

    /// <summary>Who does it: "newcomer", "manager", "coordinator", or "team:" and a team's code.</summary>
    public required string Owner { get; set; }

    /// <summary>The code of the calendar its owner works on, or <see cref="OwnCalendar"/>.</summary>
    public required string CalendarCode { get; set; }

    public required int Work { get; set; }

    public string? OpensAnchor { get; set; }

    public int OpensAmount { get; set; }

    public OffsetUnit OpensUnit { get; set; }

    public string? DueAnchor { get; set; }

    public int DueAmount { get; set; }

    public OffsetUnit DueUnit { get; set; }

    /// <summary>Keys of the tasks it comes after.</summary>
    public string[] After { get; set; } = [];

    /// <summary>The lag after each of <see cref="After"/>, in working days.</summary>
    public int[] Lags { get; set; } = [];

    public bool Required { get; set; } = true;

    public bool DayOne { get; set; }

    public string? Instructions { get; set; }

    public LocalDate? Done { get; set; }

    public string? DoneBy { get; set; }

    /// <summary>Why it does not apply; null when it does.</summary>
    public string? SkippedWhy { get; set; }
}

internal sealed class HireTaskConfiguration : IEntityTypeConfiguration<HireTask>
{
    public void Configure(EntityTypeBuilder<HireTask> task)
    {
        task.Property(t => t.SkippedWhy).HasMaxLength(500);
        task.HasIndex(t => new { t.HireId, t.Key }).IsUnique();
        task.HasIndex(t => t.Owner).HasFilter("done is null and skipped_why is null");
    }
}
