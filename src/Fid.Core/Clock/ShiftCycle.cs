using NodaTime;
using NodaTime.TimeZones;

namespace Fid.Core.Clock;

/// <summary>A shift of a pattern.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="End">When it ends; on the next day when not after the start.</param>
/// <param name="UnpaidBreak">Minutes of it that are not paid.</param>
public sealed record Shift(LocalTime Start, LocalTime End, int UnpaidBreak);

/// <summary>A cycle of shifts that repeats for ever, in both directions.</summary>
/// <param name="CycleStart">A day on which the cycle begins.</param>
/// <param name="Days">The shift of each day of the cycle by its letter; <see cref="Off"/> for a day off.</param>
/// <param name="Shifts">The shifts by letter.</param>
public sealed record ShiftCycle(LocalDate CycleStart, IReadOnlyList<string> Days, IReadOnlyDictionary<string, Shift> Shifts)
{
    /// <summary>Stands for a day off.</summary>
    public const string Off = "-";

    /// <summary>The longest cycle, in days.</summary>
    public const int Longest = 366;

    /// <summary>The most days that are worked out at once.</summary>
    public const int MostDays = 40_000;

    /// <summary>The letter of a day.</summary>
    public string LetterOn(LocalDate date)
    {
        var at = Period.DaysBetween(CycleStart, date) % Days.Count;
        return Days[at < 0 ? at + Days.Count : at];
    }

    /// <summary>What is wrong with the cycle itself; paths begin at the pattern.</summary>
    public IEnumerable<Problem> Check()
    {
        if (Days.Count is 0 or > Longest)
            yield return new Problem("/days", "bad-value", $"A cycle has from 1 to {Longest} days.");
        for (var i = 0; i < Days.Count; i++)
            if (Days[i] != Off && !Shifts.ContainsKey(Days[i]))
                yield return new Problem($"/days/{i}", "unknown-shift", $"There is no shift {Days[i]}. Known: {string.Join(", ", Shifts.Keys.Append(Off))}.");
    }

    /// <summary>
    /// The roster of the days from <paramref name="from"/> to <paramref name="to"/>, both included. Minutes are those that pass:
    /// the night the clocks go forward is an hour shorter. A time that the change of clocks leaves out is the moment an hour
    /// later; one that comes twice is the first.
    /// </summary>
    /// <param name="zone">Where the clocks hang.</param>
    /// <param name="holidays">Days that are holidays.</param>
    /// <param name="onHoliday">What holidays mean for the shift of that day.</param>
    public Result<Roster> Roster(DateTimeZone zone, IReadOnlySet<LocalDate> holidays, OnHoliday onHoliday, LocalDate from, LocalDate to)
    {
        var problems = Check().Select(p => p.Under("/pattern")).ToList();
        if (to < from)
            problems.Add(new Problem("/to", "reversed-range", "The last day comes before the first. Swap them."));
        else if (Period.DaysBetween(from, to) >= MostDays)
            problems.Add(new Problem("/to", "out-of-range", $"Ask for at most {MostDays} days at once."));
        else if (from.Year < 2 || to.Year > 9998)
            problems.Add(new Problem("/from", "out-of-range", "Ask for days in the years 2 to 9998."));
        if (problems.Count > 0)
            return Result<Roster>.Failed(problems);

        var days = new List<RosterDay>();
        for (var date = from; date <= to; date = date.PlusDays(1))
        {
            var letter = LetterOn(date);
            var holiday = holidays.Contains(date);
            if (letter == Off || (holiday && onHoliday == OnHoliday.Off))
            {
                days.Add(new RosterDay(date, null, holiday, null, null, 0));
                continue;
            }
            var shift = Shifts[letter];
            var start = date.At(shift.Start).InZone(zone, Resolvers.LenientResolver);
            var end = date.PlusDays(shift.End > shift.Start ? 0 : 1).At(shift.End).InZone(zone, Resolvers.LenientResolver);
            var minutes = (int)(end.ToInstant() - start.ToInstant()).TotalMinutes;
            days.Add(new RosterDay(date, letter, holiday, start.ToOffsetDateTime(), end.ToOffsetDateTime(), Math.Max(minutes - shift.UnpaidBreak, 0)));
        }
        return new Roster(days, days.Sum(d => d.PaidMinutes));
    }
}

/// <summary>What a holiday means for the shift that would fall on it.</summary>
public enum OnHoliday
{
    /// <summary>Nobody works.</summary>
    Off,

    /// <summary>The shift is worked.</summary>
    Worked,
}

/// <summary>Who works when, for a pattern.</summary>
/// <param name="Days">Every day asked for, in order.</param>
/// <param name="PaidMinutes">The paid minutes of all of them.</param>
public sealed record Roster(IReadOnlyList<RosterDay> Days, int PaidMinutes);

/// <summary>A day of a roster.</summary>
/// <param name="Shift">The shift's letter; null when off.</param>
/// <param name="Holiday">Whether it is a holiday, worked or not.</param>
/// <param name="Start">When the shift begins; null when off.</param>
/// <param name="End">When it ends, perhaps on the next day; null when off.</param>
public sealed record RosterDay(LocalDate Date, string? Shift, bool Holiday, OffsetDateTime? Start, OffsetDateTime? End, int PaidMinutes);
