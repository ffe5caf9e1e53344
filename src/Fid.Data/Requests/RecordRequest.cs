using System.Text.Json;
using Fid.Data.Firms;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Fid.Data.Requests;

/// <summary>A change of a record that somebody asks for: nothing of it is true of the record until those asked have agreed. What is said
/// of it, and by whom, stands in the trail, under its id.</summary>
public sealed class RecordRequest
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>Of whose record.</summary>
    public required Guid EmploymentId { get; init; }

    /// <summary>The account of who asks.</summary>
    public required Guid AskedById { get; init; }

    /// <summary>The name they had then.</summary>
    public required string AskedByName { get; init; }

    public required Instant AskedAt { get; init; }

    /// <summary>The day from which it is to hold; null where it corrects what is there.</summary>
    public LocalDate? From { get; init; }

    public required string Why { get; init; }

    /// <summary>What is to change, each address once.</summary>
    public required IReadOnlyList<RequestedValue> Changes { get; set; }

    /// <summary>Who is asked, one after the other.</summary>
    public required IReadOnlyList<RequestStep> Steps { get; set; }

    public RequestState State { get; set; } = RequestState.Waiting;

    /// <summary>When it was last decided on; null while it waits.</summary>
    public Instant? Ended { get; set; }

    /// <summary>Since when it is asked again, because the record changed meanwhile; null where it did not.</summary>
    public Instant? AskedAgain { get; set; }

    /// <summary>Changes with every save.</summary>
    public uint RowVersion { get; init; }

    /// <summary>The step whose turn it is; null where all have agreed.</summary>
    public RequestStep? Next => Steps.FirstOrDefault(s => s.AgreedAt is null);

    public const int LongestWhy = 500;

    /// <summary>How changes and steps are kept.</summary>
    public static JsonSerializerOptions Json { get; } = new JsonSerializerOptions(JsonSerializerDefaults.Web).ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
}

/// <summary>A value that is asked for.</summary>
/// <param name="Field">The address of the value in the record.</param>
/// <param name="Owner">The employment or the person it is a fact of; what is sensitive is sealed for them.</param>
/// <param name="Old">What the record held when it was asked for; null for nothing.</param>
/// <param name="New">What it is to hold; null for nothing.</param>
/// <param name="Before">What it held when it was first asked for, where that is no longer so; left out where it is.</param>
public sealed record RequestedValue(string Field, Guid Owner, JsonElement? Old, JsonElement? New, JsonElement? Before = null);

/// <summary>Some who are asked together: any of them agrees for all.</summary>
/// <param name="Rule">The id of the approval by which; empty where whoever may change the fields is asked.</param>
/// <param name="By">How they are found, as approvals write it.</param>
/// <param name="Fields">The addresses they are asked about.</param>
/// <param name="HandedTo">The account of whom one of them gave it to; null for nobody.</param>
/// <param name="AgreedBy">The account of who agreed; null while nobody has.</param>
/// <param name="AgreedByName">The name they had then.</param>
/// <param name="AgreedAt">When.</param>
public sealed record RequestStep(
    string Rule,
    string By,
    IReadOnlyList<string> Fields,
    Guid? HandedTo = null,
    Guid? AgreedBy = null,
    string? AgreedByName = null,
    Instant? AgreedAt = null
);

/// <summary>How it stands with a request.</summary>
public enum RequestState
{
    /// <summary>Somebody is asked.</summary>
    Waiting,

    /// <summary>All agreed, and the record holds it.</summary>
    Done,

    /// <summary>Somebody said no.</summary>
    Refused,

    /// <summary>Who asked took it back.</summary>
    Withdrawn,

    /// <summary>The record came to hold it by itself.</summary>
    Overtaken,
}

internal sealed class RecordRequestConfiguration : IEntityTypeConfiguration<RecordRequest>
{
    public void Configure(EntityTypeBuilder<RecordRequest> request)
    {
        request.HasOne<Employment>().WithMany().HasForeignKey(r => r.EmploymentId).OnDelete(DeleteBehavior.Restrict);
        request.HasOne<FidUser>().WithMany().HasForeignKey(r => r.AskedById).OnDelete(DeleteBehavior.Restrict);
        request.Property(r => r.Why).HasMaxLength(RecordRequest.LongestWhy);
        request.Property(r => r.Changes).AsJson(RecordRequest.Json);
        request.Property(r => r.Steps).AsJson(RecordRequest.Json);
        request.Property(r => r.State).HasConversion<string>().HasMaxLength(12);
        request.Property(r => r.RowVersion).IsRowVersion();
        request.Ignore(r => r.Next);
        request.HasIndex(r => r.EmploymentId).HasFilter("state = 'Waiting'").HasDatabaseName("ix_record_requests_waiting");
        request.HasIndex(r => new { r.AskedById, r.AskedAt });
    }
}
