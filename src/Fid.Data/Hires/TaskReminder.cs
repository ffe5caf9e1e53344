using Fid.Core.Chasing;
using Fid.Data.Mail;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A reminder of a task that went out: of each moment there is one, and the database forbids a second.</summary>
public sealed class TaskReminder
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid TaskId { get; init; }

    /// <summary>The account of the owner whom it is about. A team's task has an owner in each member.</summary>
    public required Guid OwnerId { get; init; }

    public required ReminderKind Kind { get; init; }

    /// <summary>The day of its moment, not that on which it went out.</summary>
    public required LocalDate Day { get; init; }

    /// <summary>The message that told it, and to whom.</summary>
    public required Guid MessageId { get; init; }
}

internal sealed class TaskReminderConfiguration : IEntityTypeConfiguration<TaskReminder>
{
    public void Configure(EntityTypeBuilder<TaskReminder> reminder)
    {
        reminder.ToTable("task_reminders");
        reminder.HasOne<HireTask>().WithMany().HasForeignKey(r => r.TaskId).OnDelete(DeleteBehavior.Cascade);
        reminder.HasOne<MailMessage>().WithMany().HasForeignKey(r => r.MessageId).OnDelete(DeleteBehavior.Cascade);
        reminder
            .HasIndex(r => new
            {
                r.TaskId,
                r.OwnerId,
                r.Kind,
                r.Day,
            })
            .IsUnique();
    }
}
