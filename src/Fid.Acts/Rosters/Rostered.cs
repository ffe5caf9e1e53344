using Fid.Acts.Calendars;
using Fid.Core.Clock;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rosters;

/// <summary>Somebody who works by a pattern.</summary>
/// <param name="Calendar">The code of the calendar whose holidays count; null where none do.</param>
public sealed record Rostered(EntryContent Pattern, DateTimeZone Zone, CalendarSet Calendars, string? Calendar)
{
    /// <summary>By what their shifts are laid out, for the days from one to another.</summary>
    public RosterTerms Terms(LocalDate from, LocalDate to) =>
        new(
            Zone,
            ShiftPatternEntry.Cycle(Pattern),
            Calendars.NamesOfDaysOff(Calendar, Enumerable.Range(from.Year, to.Year - from.Year + 1)).Keys.ToHashSet(),
            ShiftPatternEntry.OnHoliday(Pattern)
        );

    /// <summary>The pattern with a code; null where there is none.</summary>
    public static async Task<EntryContent?> PatternAsync(FidDb db, string? code, CancellationToken cancellation) =>
        code is null ? null : (await db.ListEntries.AsNoTracking().Coded("shiftPatterns", code).FirstOrDefaultAsync(cancellation))?.Content();
}
