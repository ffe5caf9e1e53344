using System.Text.Json;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Fid.Data.Exchange;

/// <summary>Something that goes out of Fid. Written in the transaction of what causes it, sent afterwards, until it has been heard.</summary>
public sealed class OutboxMessage
{
    public const int LongestRecipient = 200,
        LongestTrouble = 500;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>By which way it goes: one of <see cref="Systems"/>.</summary>
    public required string Channel { get; init; }

    /// <summary>Whom it is for, as the other side calls them: an employee number; in recruiting, the candidate's id.</summary>
    public required string Recipient { get; init; }

    public required HireNotice Payload { get; init; }

    /// <summary>The hire it is about; null for none.</summary>
    public Guid? HireId { get; init; }

    /// <summary>The change that caused it.</summary>
    public Guid? CauseId { get; init; }

    public required Instant At { get; init; }

    /// <summary>When it was heard; null while it waits.</summary>
    public Instant? SentAt { get; set; }

    /// <summary>Who told it by hand; null where Fid did.</summary>
    public string? SentBy { get; set; }

    public int Tries { get; set; }

    /// <summary>Not before this it is tried again.</summary>
    public Instant NextTry { get; set; }

    /// <summary>What went wrong last.</summary>
    public string? Trouble { get; set; }

    /// <summary>The system that Fid tells by itself.</summary>
    public const string Recruiting = "recruiting";

    /// <summary>All systems; those without a connection are told by hand.</summary>
    public static IReadOnlyList<string> Systems { get; } = [Recruiting, "payroll", "clocks", "directory"];
}

/// <summary>What other systems are told of a hire.</summary>
/// <param name="Number">The employee number; empty where there is none.</param>
public sealed record HireNotice(NoticeKind Kind, string Number, LocalDate Start)
{
    internal static JsonSerializerOptions Json { get; } =
        new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter() },
        }.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
}

/// <summary>What a notice says.</summary>
public enum NoticeKind
{
    /// <summary>A hire was opened.</summary>
    Opened,

    /// <summary>The first day moved.</summary>
    StartMoved,

    /// <summary>The person or the firm stepped back.</summary>
    Withdrawn,

    /// <summary>The person did not come.</summary>
    NoShow,

    /// <summary>A hire that had come to nothing goes on.</summary>
    WentOn,

    /// <summary>A candidate was declined.</summary>
    Declined,
}

internal sealed class OutboxMessageConfiguration : IEntityTypeConfiguration<OutboxMessage>
{
    public void Configure(EntityTypeBuilder<OutboxMessage> message)
    {
        message.ToTable("outbox");
        message.Property(m => m.Channel).HasMaxLength(20);
        message.Property(m => m.Recipient).HasMaxLength(OutboxMessage.LongestRecipient);
        message.Property(m => m.Payload).AsJson(HireNotice.Json);
        message.Property(m => m.Trouble).HasMaxLength(OutboxMessage.LongestTrouble);
        message.HasOne<Hire>().WithMany().HasForeignKey(m => m.HireId).OnDelete(DeleteBehavior.SetNull);
        message.HasOne<Change>().WithMany().HasForeignKey(m => m.CauseId).OnDelete(DeleteBehavior.Restrict);
        message.HasIndex(m => new { m.Channel, m.NextTry }).HasFilter("sent_at is null");
        message.HasIndex(m => m.At);
    }
}
