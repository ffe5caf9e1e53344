using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>What somebody was last invited to for a task. It stays when the task goes: then they are told that it is off.</summary>
public sealed class TaskInvitation
{
    /// <summary>Also the UID of the event (RFC 5545, 3.8.4.7).</summary>
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid HireId { get; init; }

    public required string TaskKey { get; init; }

    /// <summary>The account of who was invited.</summary>
    public required Guid AccountId { get; init; }

    /// <summary>What the event is called in a text that its reader may see.</summary>
    public required string What { get; set; }

    /// <summary>The newcomer, as the reader may know of them; null for the newcomer.</summary>
    public string? Whom { get; set; }

    public required LocalDate Day { get; set; }

    public required LocalTime At { get; set; }

    public required int Minutes { get; set; }

    public string? Place { get; set; }

    /// <summary>How often it was changed since (RFC 5545, 3.8.7.4).</summary>
    public int Sequence { get; set; }

    /// <summary>Whether it is off.</summary>
    public bool Cancelled { get; set; }
}

internal sealed class TaskInvitationConfiguration : IEntityTypeConfiguration<TaskInvitation>
{
    public void Configure(EntityTypeBuilder<TaskInvitation> invitation)
    {
        invitation.ToTable("task_invitations");
        invitation.Property(i => i.TaskKey).HasMaxLength(100);
        invitation.Property(i => i.What).HasMaxLength(HireTask.LongestName);
        invitation.Property(i => i.Whom).HasMaxLength(300);
        invitation.Property(i => i.Place).HasMaxLength(HireTask.LongestName);
        invitation
            .HasIndex(i => new
            {
                i.HireId,
                i.TaskKey,
                i.AccountId,
            })
            .IsUnique();
        invitation.HasOne<Hire>().WithMany().HasForeignKey(i => i.HireId);
    }
}
