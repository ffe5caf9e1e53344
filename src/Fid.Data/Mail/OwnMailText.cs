using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Mail;

/// <summary>The firm's own text of a message in one language, in place of the one that ships. Without a row, that one goes out.</summary>
public sealed class OwnMailText
{
    public const int LongestSubject = 1_000,
        LongestText = 20_000,
        LongestHtml = 60_000;

    /// <summary>What the message is for, such as "reminders".</summary>
    public required string Kind { get; init; }

    /// <summary>"en" or "de".</summary>
    public required string Language { get; init; }

    /// <summary>Liquid, as the other two.</summary>
    public required string Subject { get; set; }

    public required string Text { get; set; }

    public required string Html { get; set; }

    public required Instant At { get; set; }

    public required string ByName { get; set; }

    /// <summary>Changes with every save of the row.</summary>
    public uint Version { get; init; }
}

internal sealed class OwnMailTextConfiguration : IEntityTypeConfiguration<OwnMailText>
{
    public void Configure(EntityTypeBuilder<OwnMailText> text)
    {
        text.ToTable("mail_texts");
        text.HasKey(t => new { t.Kind, t.Language });
        text.Property(t => t.Kind).HasMaxLength(40);
        text.Property(t => t.Language).HasMaxLength(2);
        text.Property(t => t.Subject).HasMaxLength(OwnMailText.LongestSubject);
        text.Property(t => t.Text).HasMaxLength(OwnMailText.LongestText);
        text.Property(t => t.Html).HasMaxLength(OwnMailText.LongestHtml);
        text.Property(t => t.Version).IsRowVersion();
    }
}
