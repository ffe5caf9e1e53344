using Fid.Acts.Calendars;
using Fid.Core.Clock;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What a shift pattern comes to over four weeks, beside what was agreed.</summary>
internal static class RosterReading
{
    private const int Weeks = 4;

    /// <summary>Null for a pattern that is not there.</summary>
    /// <param name="pattern">The code of the pattern.</param>
    /// <param name="calendar">The code of the calendar whose holidays count; null where none do.</param>
    /// <param name="weeklyHours">The agreed hours a week; null where they are not known.</param>
    /// <param name="from">The first of the days that are looked at.</param>
    public static async Task<RosterResponse?> OfAsync(
        FidDb db,
        Firm firm,
        string pattern,
        string? calendar,
        decimal? weeklyHours,
        LocalDate from,
        CancellationToken cancellation
    )
    {
        var to = from.PlusWeeks(Weeks).PlusDays(-1);
        return await RosterAsync(db, firm, pattern, calendar, from, to, cancellation) is { } roster
            ? new RosterResponse(pattern, from, to, roster.PaidMinutes, weeklyHours is { } hours ? (int)decimal.Round(hours * 60 * Weeks) : null)
            : null;
    }

    /// <summary>Who is on a pattern works when, from one day to another, both included. Null for a pattern that is not there.</summary>
    public static async Task<Roster?> RosterAsync(
        FidDb db,
        Firm firm,
        string pattern,
        string? calendar,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellation
    )
    {
        if ((await db.ListEntries.AsNoTracking().Coded("shiftPatterns", pattern).FirstOrDefaultAsync(cancellation))?.Content() is not { } entry)
            return null;
        var book = await CalendarSet.LoadAsync(db, cancellation);
        var holidays = book.NamesOfDaysOff(calendar, Enumerable.Range(from.Year, to.Year - from.Year + 1)).Keys.ToHashSet();
        return ShiftPatternEntry.Cycle(entry).Roster(firm.Zone, holidays, ShiftPatternEntry.OnHoliday(entry), from, to).Answer;
    }
}

/// <summary>What a shift pattern comes to over some weeks.</summary>
/// <param name="From">The first of the days, included.</param>
/// <param name="To">The last of them, included.</param>
/// <param name="PaidMinutes">What is paid of its shifts, holidays off left out.</param>
/// <param name="ContractMinutes">What was agreed for as long; null where no hours are.</param>
public sealed record RosterResponse(string Pattern, LocalDate From, LocalDate To, int PaidMinutes, int? ContractMinutes);
