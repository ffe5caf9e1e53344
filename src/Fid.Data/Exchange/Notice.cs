using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Exchange;

/// <summary>Something another system is to be told of a hire. Written with what causes it, told afterwards, until it has been heard.</summary>
public sealed class Notice
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>One of <see cref="Systems"/>.</summary>
    public required string System { get; init; }

    public required NoticeKind Kind { get; init; }

    public required Guid HireId { get; init; }

    /// <summary>What the person is called there: an employee number; in recruiting, the candidate's id.</summary>
    public required string Reference { get; init; }

    /// <summary>The employee number.</summary>
    public required string Number { get; init; }

    public required LocalDate Start { get; init; }

    public required Instant At { get; init; }

    /// <summary>When it was heard; null while it waits.</summary>
    public Instant? ToldAt { get; set; }

    /// <summary>Who told it by hand; null where Fid did.</summary>
    public string? ToldBy { get; set; }

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

internal sealed class NoticeConfiguration : IEntityTypeConfiguration<Notice>
{
    public void Configure(EntityTypeBuilder<Notice> notice)
    {
        notice.Property(n => n.System).HasMaxLength(20);
        notice.Property(n => n.Kind).HasConversion<string>().HasMaxLength(20);
        notice.Property(n => n.Reference).HasMaxLength(FeedCandidate.LongestId);
        notice.Property(n => n.Number).HasMaxLength(20);
        notice.Property(n => n.Trouble).HasMaxLength(500);
        notice.HasIndex(n => n.NextTry).HasFilter("told_at is null");
    }
}
