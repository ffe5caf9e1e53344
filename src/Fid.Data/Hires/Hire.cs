using Fid.Core.Checklists;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A newcomer under way: an employment with a checklist. Who changes jobs or leaves has one as well, for that occasion.</summary>
public sealed class Hire
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid EmploymentId { get; init; }

    /// <summary>What its checklist is run for.</summary>
    public Occasion Occasion { get; init; }

    public required string TemplateCode { get; init; }

    public required int TemplateVersion { get; set; }

    /// <summary>The layers it was made of, lowest first, each with its version: "template:deckhand@4", "addOn:skerry@1".</summary>
    public required string[] Layers { get; set; }

    /// <summary>The day it is planned around, the plan's anchor "start": the first day, the first day in the new job, or the last day.</summary>
    public required LocalDate Start { get; set; }

    /// <summary>The day the offer was accepted, the change agreed or notice given: the plan's anchor "accepted".</summary>
    public required LocalDate Accepted { get; init; }

    /// <summary>The day it was opened in Fid. What was due before it lay before anybody here knew.</summary>
    public required LocalDate Entered { get; init; }

    /// <summary>The user who coordinates it.</summary>
    public required Guid CoordinatorId { get; set; }

    /// <summary>The day on which the newcomer had settled or the hire came to nothing; null while it is under way. It then leaves Arrivals.</summary>
    public LocalDate? Closed { get; set; }

    /// <summary>The change of the record that it brought with it, as the new job or the last day; null for none. An arrival's is its opening.</summary>
    public Guid? RecordChangeId { get; set; }

    /// <summary>Whether nobody is reminded of its tasks for now, unless somebody asks for it.</summary>
    public bool RemindersPaused { get; set; }

    /// <summary>How it ended, where it came to nothing; null while it is under way or where the newcomer settled.</summary>
    public HireOutcome? Outcome { get; set; }

    /// <summary>Why it came to nothing.</summary>
    public string? OutcomeWhy { get; set; }

    /// <summary>Changes with every save of the row.</summary>
    public uint Version { get; init; }

    public List<HireTask> Tasks { get; init; } = [];

    /// <summary>The items, documents, certificates, second jobs and messages of its template, as they were when it was opened.</summary>
    public List<HireEntry> Entries { get; init; } = [];
}

/// <summary>How a hire came to nothing.</summary>
public enum HireOutcome
{
    /// <summary>The person did not come on the first day.</summary>
    NoShow,

    /// <summary>The person or the firm stepped back before the first day.</summary>
    Withdrawn,
}

internal sealed class HireConfiguration : IEntityTypeConfiguration<Hire>
{
    public void Configure(EntityTypeBuilder<Hire> hire)
    {
        hire.Property(h => h.Occasion).HasConversion<string>().HasMaxLength(20).HasDefaultValue(Occasion.Arrival);
        hire.HasOne<Employment>().WithMany().HasForeignKey(h => h.EmploymentId).OnDelete(DeleteBehavior.Restrict);
        hire.HasMany(h => h.Tasks).WithOne().HasForeignKey(t => t.HireId);
        hire.HasMany(h => h.Entries).WithOne().HasForeignKey(e => e.HireId);
        hire.Property(h => h.Outcome).HasConversion<string>().HasMaxLength(20);
        hire.Property(h => h.OutcomeWhy).HasMaxLength(500);
        hire.Property(h => h.Version).IsRowVersion();
        hire.HasOne<Change>().WithMany().HasForeignKey(h => h.RecordChangeId).OnDelete(DeleteBehavior.Restrict);
        hire.HasIndex(h => h.Start).HasFilter("closed is null");
        hire.HasIndex(h => h.EmploymentId);
        hire.HasIndex(h => h.RecordChangeId).HasFilter("record_change_id is not null");
        // Nobody leaves twice at once.
        hire.HasIndex(h => new { h.EmploymentId, h.Occasion }).IsUnique().HasFilter("closed is null");
    }
}
