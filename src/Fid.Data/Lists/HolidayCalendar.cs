using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Lists;

/// <summary>The days off of a group of people, besides those of the calendar it is based on.</summary>
public sealed class HolidayCalendar : ListEntry
{
    /// <summary>Seven characters, Monday first, 1 for rest.</summary>
    public required string Rest { get; set; }

    public string? BasedOnCode { get; set; }

    public List<Holiday> Holidays { get; init; } = [];
}

/// <summary>A day off.</summary>
public sealed record Holiday(LocalDate Date, string Name);

internal sealed class HolidayCalendarConfiguration : ListEntryConfiguration<HolidayCalendar>
{
    public override void Configure(EntityTypeBuilder<HolidayCalendar> calendar)
    {
        base.Configure(calendar);
        calendar.OwnsMany(c => c.Holidays, holiday =>
        {
            holiday.ToTable("holidays");
            holiday.WithOwner().HasForeignKey("CalendarId");
            holiday.HasKey("CalendarId", nameof(Holiday.Date));
        });
    }
}
