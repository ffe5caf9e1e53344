using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.People;

/// <summary>
/// An employment's record as it is now (for somebody who has not started, as it will be on the first day): what lists join and
/// sort by in columns. Written in the same transaction as the rows it follows from.
/// </summary>
public sealed class CurrentRecord
{
    public required Guid EmploymentId { get; init; }

    public required Guid PersonId { get; set; }

    public string GivenName { get; set; } = "";

    public string FamilyName { get; set; } = "";

    public string? Email { get; set; }

    public string? SiteCode { get; set; }

    public string? DepartmentCode { get; set; }

    public string? JobCode { get; set; }

    public string? Kind { get; set; }

    public string? Badge { get; set; }

    public string? CalendarCode { get; set; }

    public Guid? ManagerId { get; set; }

    /// <summary>The employment of the buddy.</summary>
    public Guid? BuddyId { get; set; }

    /// <summary>The day the record was taken on: today, or the first day.</summary>
    public LocalDate AsOf { get; set; }

    /// <summary>Keys of the fields that are shown, required now or from some stage on, and empty.</summary>
    public string[] Missing { get; set; } = [];

    /// <summary>The ids of the firm's groups of people that its formula takes the person into.</summary>
    public string[] Groups { get; set; } = [];

    public int Filled { get; set; }

    /// <summary>How many fields are shown of it.</summary>
    public int Of { get; set; }

    /// <summary>What a search looks through: the name both ways round and the number, as search words.</summary>
    public string Search { get; set; } = "";

    /// <summary>When the record was last saved; what makes every save show in <see cref="Version"/>.</summary>
    public Instant Saved { get; set; }

    /// <summary>Changes with every save of the row.</summary>
    public uint Version { get; init; }

    public string FullName => $"{GivenName} {FamilyName}".Trim();
}

internal sealed class CurrentRecordConfiguration : IEntityTypeConfiguration<CurrentRecord>
{
    public void Configure(EntityTypeBuilder<CurrentRecord> record)
    {
        record.ToTable("records_now");
        record.HasKey(r => r.EmploymentId);
        record.HasOne<Employment>().WithOne().HasForeignKey<CurrentRecord>(r => r.EmploymentId).OnDelete(DeleteBehavior.Restrict);
        record.HasOne<Person>().WithMany().HasForeignKey(r => r.PersonId).OnDelete(DeleteBehavior.Restrict);
        record.Ignore(r => r.FullName);
        record.Property(r => r.Version).IsRowVersion();
        record.HasIndex(r => r.ManagerId);
        record.HasIndex(r => r.BuddyId).HasFilter("buddy_id is not null");
        record.HasIndex(r => r.PersonId);
        record.HasIndex(r => r.Badge);
        record.HasIndex(r => r.Groups).HasMethod("gin");
        // A word typed begins one of these anywhere in the text: trigrams find that without reading every record.
        record.HasIndex(r => r.Search).HasMethod("gin").HasOperators("gin_trgm_ops");
        record.HasIndex(r => new
        {
            r.FamilyName,
            r.GivenName,
            r.EmploymentId,
        });
    }
}
