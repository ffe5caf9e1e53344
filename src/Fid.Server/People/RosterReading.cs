using Fid.Acts.Calendars;
using Fid.Core.Clock;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What a shift pattern comes to over four weeks, beside what was agreed.</summary>
internal static class RosterReading
{
    private const int Weeks = 4;

    /// <summary>What a pattern comes to over the next weeks.</summary>
    /// <param name="weeklyHours">The agreed hours a week; null where they are not known.</param>
    /// <param name="from">The first of the days that are looked at.</param>
    public static RosterResponse? Of(Rostered rostered, decimal? weeklyHours, LocalDate from)
    {
        var to = from.PlusWeeks(Weeks).PlusDays(-1);
        return rostered.Terms(from, to).On(from, to).Answer is { } roster
            ? new RosterResponse(rostered.Pattern.Code, from, to, roster.PaidMinutes, weeklyHours is { } hours ? (int)decimal.Round(hours * 60 * Weeks) : null)
            : null;
    }

    /// <summary>The pattern with a code; null where there is none.</summary>
    public static async Task<EntryContent?> PatternAsync(FidDb db, string? code, CancellationToken cancellation) =>
        code is null ? null : (await db.ListEntries.AsNoTracking().Coded("shiftPatterns", code).FirstOrDefaultAsync(cancellation))?.Content();
}

/// <summary>Somebody who works by a pattern.</summary>
/// <param name="Calendar">The code of the calendar whose holidays count; null where none do.</param>
internal sealed record Rostered(EntryContent Pattern, DateTimeZone Zone, CalendarSet Calendars, string? Calendar)
{
    /// <summary>By what their shifts are laid out, for the days from one to another.</summary>
    public RosterTerms Terms(LocalDate from, LocalDate to) =>
        new(
            Zone,
            ShiftPatternEntry.Cycle(Pattern),
            Calendars.NamesOfDaysOff(Calendar, Enumerable.Range(from.Year, to.Year - from.Year + 1)).Keys.ToHashSet(),
            ShiftPatternEntry.OnHoliday(Pattern)
        );
}

/// <summary>What a shift pattern comes to over some weeks.</summary>
/// <param name="From">The first of the days, included.</param>
/// <param name="To">The last of them, included.</param>
/// <param name="PaidMinutes">What is paid of its shifts, holidays off left out.</param>
/// <param name="ContractMinutes">What was agreed for as long; null where no hours are.</param>
public sealed record RosterResponse(string Pattern, LocalDate From, LocalDate To, int PaidMinutes, int? ContractMinutes);
