using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Mail;

/// <summary>A message that goes out by mail: written in the transaction of what causes it, and sent afterwards by a job.</summary>
public sealed class MailMessage
{
    public const int LongestSubject = 300,
        LongestTrouble = 500;

    /// <summary>Also its Message-ID (RFC 5322): sent twice after a crash, it is the same message.</summary>
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>What it is for, such as "reminders".</summary>
    public required string Kind { get; init; }

    /// <summary>The account of who gets it.</summary>
    public required Guid AccountId { get; init; }

    /// <summary>What they are called.</summary>
    public required string Name { get; init; }

    /// <summary>Where it goes.</summary>
    public required string Address { get; set; }

    public required string Subject { get; init; }

    /// <summary>The message as plain text.</summary>
    public required string Text { get; init; }

    /// <summary>The same as HTML.</summary>
    public required string Html { get; init; }

    /// <summary>An invitation that goes with it, as iCalendar (RFC 5545); null where it invites to nothing.</summary>
    public string? Calendar { get; init; }

    /// <summary>What is done with the invitation (RFC 5546): "REQUEST" or "CANCEL"; null where there is none.</summary>
    public string? CalendarMethod { get; init; }

    public required Instant At { get; init; }

    /// <summary>When the mail server took it; null while it has not.</summary>
    public Instant? SentAt { get; set; }

    /// <summary>Why it cannot be delivered: it is not sent again by itself. Null where nothing is known to be wrong.</summary>
    public string? Refused { get; set; }

    /// <summary>When somebody laid it aside after it had come back; null while nobody has.</summary>
    public Instant? SettledAt { get; set; }

    /// <summary>Who did.</summary>
    public string? SettledBy { get; set; }

    /// <summary>What is wrong, as long as it may be.</summary>
    public static string Cut(string trouble) => trouble.Length <= LongestTrouble ? trouble : trouble[..LongestTrouble];
}

internal sealed class MailMessageConfiguration : IEntityTypeConfiguration<MailMessage>
{
    public void Configure(EntityTypeBuilder<MailMessage> message)
    {
        message.ToTable("mail_messages");
        message.Property(m => m.Kind).HasMaxLength(40);
        message.Property(m => m.Subject).HasMaxLength(MailMessage.LongestSubject);
        message.Property(m => m.Refused).HasMaxLength(MailMessage.LongestTrouble);
        message.Property(m => m.CalendarMethod).HasMaxLength(10);
        message.Property(m => m.SettledBy).HasMaxLength(200);
        message.HasIndex(m => m.At);
        // What waits for somebody to deal with it.
        message.HasIndex(m => m.At, "ix_mail_messages_back").HasFilter("refused is not null and settled_at is null");
        message.HasIndex(m => m.AccountId);
    }
}
