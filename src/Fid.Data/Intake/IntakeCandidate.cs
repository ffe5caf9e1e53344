using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Fid.Data.Intake;

/// <summary>An accepted candidate from the recruiting feed.</summary>
public sealed class IntakeCandidate
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>What the feed calls the candidate; each is taken in once.</summary>
    public required string SourceId { get; init; }

    public IntakeState State { get; set; }

    /// <summary>What the feed said when it was last pulled.</summary>
    public required FeedCandidate Now { get; set; }

    /// <summary>What it had said of what was taken over or declined since; null until a hire was opened.</summary>
    public FeedCandidate? Settled { get; set; }

    /// <summary>The hire that was opened.</summary>
    public Guid? HireId { get; set; }

    public required Instant ArrivedAt { get; init; }

    public Instant ChangedAt { get; set; }

    /// <summary>Why it was declined.</summary>
    public string? Why { get; set; }

    public uint Version { get; init; }
}

/// <summary>Where a candidate stands.</summary>
public enum IntakeState
{
    /// <summary>In the tray.</summary>
    Waiting,

    /// <summary>A hire was opened.</summary>
    Taken,

    /// <summary>Nobody is to be hired.</summary>
    Declined,
}

/// <summary>A candidate as the feed tells of them. What it leaves out is null.</summary>
/// <param name="Id">The feed's own id.</param>
/// <param name="Role">What they were recruited for: the code or the name of a role template.</param>
/// <param name="Site">The code or the name of a site.</param>
public sealed record FeedCandidate(
    string Id,
    string? GivenName,
    string? FamilyName,
    LocalDate? BirthDate,
    string? Email,
    string? Phone,
    string? Role,
    string? Site,
    LocalDate? Start
)
{
    /// <summary>The longest id of a candidate, in characters.</summary>
    public const int LongestId = 100;

    /// <summary>How candidates are kept.</summary>
    public static JsonSerializerOptions Json { get; } = new JsonSerializerOptions(JsonSerializerDefaults.Web).ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    /// <summary>The name under which a change of what somebody was recruited for is told; no field of the record.</summary>
    public const string RoleField = "role";

    /// <summary>What of it can come to be said otherwise after a hire was opened, by field of the record, and the role.</summary>
    public IReadOnlyDictionary<string, string?> Fields =>
        new Dictionary<string, string?>
        {
            ["given_name"] = GivenName,
            ["family_name"] = FamilyName,
            ["birth_date"] = BirthDate?.ToString("uuuu-MM-dd", null),
            ["email"] = Email,
            ["phone"] = Phone,
            ["site"] = Site,
            ["start_date"] = Start?.ToString("uuuu-MM-dd", null),
            [RoleField] = Role,
        };
}

/// <summary>A pull of the feed, by itself or asked for.</summary>
public sealed class FeedRun
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Instant At { get; init; }

    /// <summary>How often it was tried.</summary>
    public required int Tries { get; init; }

    public required int Candidates { get; init; }

    public required int Arrived { get; init; }

    public required int Changed { get; init; }

    /// <summary>What went wrong, try by try; empty for nothing.</summary>
    public required string[] Trouble { get; init; }

    /// <summary>Whether the feed was read in the end.</summary>
    public required bool Succeeded { get; init; }
}

internal sealed class IntakeCandidateConfiguration : IEntityTypeConfiguration<IntakeCandidate>
{
    public void Configure(EntityTypeBuilder<IntakeCandidate> candidate)
    {
        candidate.Property(c => c.SourceId).HasMaxLength(FeedCandidate.LongestId);
        candidate.HasIndex(c => c.SourceId).IsUnique();
        candidate.HasIndex(c => c.HireId).IsUnique();
        candidate.Property(c => c.State).HasConversion<string>().HasMaxLength(20);
        candidate.Property(c => c.Why).HasMaxLength(500);
        candidate.Property(c => c.Now).AsJson(FeedCandidate.Json);
        candidate.Property(c => c.Settled).AsJson(FeedCandidate.Json);
        candidate.Property(c => c.Version).IsRowVersion();
    }
}
