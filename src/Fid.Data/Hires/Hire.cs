using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A newcomer under way: an employment with a checklist.</summary>
public sealed class Hire
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid EmploymentId { get; init; }

    public required string TemplateCode { get; init; }

    public required int TemplateVersion { get; init; }

    /// <summary>The first day: the plan's anchor "start".</summary>
    public required LocalDate Start { get; set; }

    /// <summary>The day the offer was accepted: the plan's anchor "accepted".</summary>
    public required LocalDate Accepted { get; init; }

    /// <summary>The user who coordinates it.</summary>
    public required Guid CoordinatorId { get; set; }

    /// <summary>Set when the newcomer has settled or the hire came to nothing; it then leaves Arrivals.</summary>
    public LocalDate? Closed { get; set; }

    /// <summary>Changes with every save of the row.</summary>
    public uint Version { get; init; }

    public List<HireTask> Tasks { get; init; } = [];
}

internal sealed class HireConfiguration : IEntityTypeConfiguration<Hire>
{
    public void Configure(EntityTypeBuilder<Hire> hire)
    {
        hire.HasOne<Employment>().WithMany().HasForeignKey(h => h.EmploymentId).OnDelete(DeleteBehavior.Restrict);
        hire.HasMany(h => h.Tasks).WithOne().HasForeignKey(t => t.HireId);
        hire.Property(h => h.Version).IsRowVersion();
        hire.HasIndex(h => h.Start).HasFilter("closed is null");
    }
}
