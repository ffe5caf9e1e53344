using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>The firm itself. There is one row.</summary>
public sealed class Firm
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required string Name { get; set; }

    /// <summary>ISO 4217.</summary>
    public required string Currency { get; set; }

    /// <summary>IANA name; the firm's date is this zone's.</summary>
    public required string TimeZone { get; set; }

    /// <summary>The zone of that name; UTC where there is none such any more.</summary>
    public DateTimeZone Zone => ZoneOf(TimeZone);

    /// <inheritdoc cref="Zone"/>
    public static DateTimeZone ZoneOf(string name) => DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) ?? DateTimeZone.Utc;

    /// <summary>Weekly hours of somebody full-time.</summary>
    public decimal FullTimeHours { get; set; } = 37.5m;

    /// <summary>The most hours a week that the law allows; patterns that pass it are warned of.</summary>
    public decimal LegalWeeklyHours { get; set; } = 48;

    /// <summary>Days a badge rests before another person gets it.</summary>
    public int BadgeRestDays { get; set; } = 30;

    /// <summary>The longest break between two stints, in days, over which service counts on.</summary>
    public int BridgeDays { get; set; } = 180;

    /// <summary>How employee numbers are written: see <see cref="Core.People.EmployeeNumberPattern"/>.</summary>
    public string NumberPattern { get; set; } = Core.People.EmployeeNumberPattern.Plain;

    /// <summary>Where the recruiting feed is; null for none.</summary>
    public string? FeedAddress { get; set; }

    /// <summary>How many working days before a task is due its owner is reminded.</summary>
    public int[] RemindBefore { get; set; } = [5, 1];

    /// <summary>Whether on the day it is due.</summary>
    public bool RemindOnDue { get; set; } = true;

    /// <summary>Every how many working days after it.</summary>
    public int RemindEvery { get; set; } = 2;

    /// <summary>How often after it at most.</summary>
    public int RemindMost { get; set; } = 3;

    /// <summary>How many working days after it the owner's manager is told; null for never.</summary>
    public int? EscalateAfter { get; set; } = 3;

    /// <summary>From when on, in the firm's zone, the day's reminders go out.</summary>
    public LocalTime RemindAt { get; set; } = new(7, 0);

    /// <summary>Whether nobody is reminded for now.</summary>
    public bool RemindersPaused { get; set; }

    /// <summary>The day whose reminders went out last; null before the first.</summary>
    public LocalDate? RemindedOn { get; set; }

    /// <summary>The day up to which values entered beforehand have taken effect everywhere; null before the first.</summary>
    public LocalDate? TurnedOn { get; set; }

    /// <summary>The day on which every checklist was last looked at for what the day itself brings; null before the first.</summary>
    public LocalDate? AdvancedOn { get; set; }

    /// <summary>The key of the hashes by which sensitive values are found, encrypted; made with the firm.</summary>
    public byte[]? HashKey { get; set; }
}

internal sealed class FirmConfiguration : IEntityTypeConfiguration<Firm>
{
    public void Configure(EntityTypeBuilder<Firm> firm)
    {
        // One firm to a database: a second first-run that comes at the same moment must fail.
        firm.ToTable("firms", t => t.HasCheckConstraint("ck_firms_hours", "full_time_hours > 0"));
        firm.Ignore(f => f.Zone);
        firm.Property(f => f.NumberPattern).HasMaxLength(100).HasDefaultValue(Core.People.EmployeeNumberPattern.Plain);
        firm.Property(f => f.BridgeDays).HasDefaultValue(180);
        firm.Property(f => f.RemindBefore).HasDefaultValueSql("'{5,1}'");
        firm.Property(f => f.RemindOnDue).HasDefaultValue(true);
        firm.Property(f => f.RemindEvery).HasDefaultValue(2);
        firm.Property(f => f.RemindMost).HasDefaultValue(3);
        firm.Property(f => f.EscalateAfter).HasDefaultValue(3);
        firm.Property(f => f.RemindAt).HasDefaultValueSql("'07:00'");
        firm.Property(f => f.FeedAddress).HasMaxLength(500);
        firm.Property<bool>("Only").HasDefaultValue(true);
        firm.HasIndex("Only").IsUnique();
    }
}
