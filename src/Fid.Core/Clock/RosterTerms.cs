using NodaTime;

namespace Fid.Core.Clock;

/// <summary>By what somebody's roster is laid out.</summary>
/// <param name="Zone">Where the clocks hang.</param>
/// <param name="Cycle">The pattern of their shifts.</param>
/// <param name="Holidays">Days that are holidays.</param>
/// <param name="OnHoliday">What holidays mean for the shift of that day.</param>
public sealed record RosterTerms(DateTimeZone Zone, ShiftCycle Cycle, IReadOnlySet<LocalDate> Holidays, OnHoliday OnHoliday)
{
    /// <summary>The days from one to another, both included: see <see cref="ShiftCycle.Roster"/>.</summary>
    public Result<Roster> On(LocalDate from, LocalDate to) => Cycle.Roster(Zone, Holidays, OnHoliday, from, to);
}
