using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>
/// The working days of somebody: a weekly rest mask and a set of holidays. Immutable, and safe to share between threads.
/// </summary>
/// <remarks>
/// <see cref="Add(LocalDate, long)"/> and <see cref="Count(LocalDate, LocalDate)"/> mean what WORKDAY.INTL and NETWORKDAYS.INTL mean in OpenFormula
/// (OASIS ODF 1.3 part 4, 6.10.21 and 6.10.14). Every question is answered in O(log h) for h holidays, whatever the distance in
/// days: whole weeks are counted, holidays are found by binary search.
/// Days lie in the years 1 to 9999; what would fall outside is null.
/// </remarks>
public sealed class WorkCalendar
{
    private readonly RestMask _rest;
    private readonly int[] _holidays; // day numbers, ascending, distinct, each on a day the mask leaves for work
    private readonly int[] _workBefore; // working days of this calendar before each holiday: ascending, so it can be searched

    /// <summary>Makes a calendar. Holidays may repeat, be unordered, or fall on rest days; those change nothing.</summary>
    /// <param name="rest">The days of the week on which nobody works.</param>
    /// <param name="holidays">Single days off, in the years 1 to 9999.</param>
    public WorkCalendar(RestMask rest, IEnumerable<LocalDate> holidays)
    {
        _rest = rest;
        var days = new SortedSet<int>();
        foreach (var holiday in holidays)
            if (Day.Number(holiday) is var day && !rest.IsRest(day))
                days.Add(day);
        _holidays = [.. days];
        _workBefore = new int[_holidays.Length];
        for (var i = 0; i < _holidays.Length; i++)
            _workBefore[i] = rest.WorkingBefore(_holidays[i]) - i;
    }

    /// <summary>A calendar on which every day is worked: gates and boats know no weekend.</summary>
    public static WorkCalendar EveryDay { get; } = new(RestMask.None, []);

    /// <summary>Whether the day is neither a rest day nor a holiday.</summary>
    public bool IsWorking(LocalDate date) => IsWorking(Day.Number(date));

    /// <summary>
    /// The date that lies the given number of working days after (or, when negative, before) a date. The date itself is not
    /// counted and need not be a working day: one working day after a Saturday is the Monday. Adding 0 returns the date itself,
    /// even on a rest day. Null when the answer would fall outside the years 1 to 9999.
    /// </summary>
    public LocalDate? Add(LocalDate date, long days) => Day.DateOrNull(AddUnbounded(Day.Number(date), days));

    /// <summary>
    /// The number of working days from one date to another, both ends counted. Negative when <paramref name="to"/> is before
    /// <paramref name="from"/>: the same count with a minus sign.
    /// </summary>
    public int Count(LocalDate from, LocalDate to) => Count(Day.Number(from), Day.Number(to));

    /// <summary>
    /// The date itself when it is a working day, else the one the rule leads to. Null when that would fall outside the years
    /// 1 to 9999.
    /// </summary>
    public LocalDate? Roll(LocalDate date, RollRule rule)
    {
        var day = Day.Number(date);
        switch (rule)
        {
            case RollRule.Preceding:
                return Day.DateOrNull(NthOrMinus(WorkingBefore(day + 1) - 1L));
            case RollRule.ModifiedFollowing:
                var following = Day.DateOrNull(Nth(WorkingBefore(day)));
                return following is { } f && f.Month == date.Month ? f : Roll(date, RollRule.Preceding);
            default:
                return Day.DateOrNull(Nth(WorkingBefore(day)));
        }
    }

    internal bool IsWorking(int day)
    {
        if (_rest.IsRest(day))
            return false;
        var at = CountBelow(_holidays, day);
        return at == _holidays.Length || _holidays[at] != day;
    }

    internal int Count(int from, int to) => from <= to ? WorkingBefore(to + 1) - WorkingBefore(from) : -(WorkingBefore(from + 1) - WorkingBefore(to));

    /// <summary>As <see cref="Add(LocalDate, long)"/>, on day numbers; stays on the first or last day there is instead of leaving it.</summary>
    internal int Add(int day, long days) => Day.Clamp(AddUnbounded(day, days));

    // Most days are working days already, or next to one.
    internal int RollForward(int day) =>
        IsWorking(day) ? day
        : day < Day.Last && IsWorking(day + 1) ? day + 1
        : Day.Clamp(Nth(WorkingBefore(day)));

    internal int RollBack(int day) =>
        IsWorking(day) ? day
        : day > Day.First && IsWorking(day - 1) ? day - 1
        : Day.Clamp(NthOrMinus(WorkingBefore(day + 1) - 1L));

    private long AddUnbounded(int day, long days) =>
        days switch
        {
            0 => day,
            > 0 => Nth(WorkingBefore(day + 1) + days - 1),
            _ => NthOrMinus(WorkingBefore(day) + days),
        };

    // Working days in [0, day).
    private int WorkingBefore(int day) => _rest.WorkingBefore(day) - CountBelow(_holidays, day);

    private long NthOrMinus(long index) => index < 0 ? -1 : Nth(index);

    // The working day that has exactly `index` working days before it.
    private long Nth(long index)
    {
        if (index > Day.Last)
            return long.MaxValue; // no calendar has more working days than there are days
        var holidaysPassed = CountBelow(_workBefore, (int)index + 1);
        return _rest.NthWorking((uint)(index + holidaysPassed));
    }

    private static int CountBelow(int[] ascending, int bound)
    {
        int low = 0,
            high = ascending.Length;
        while (low < high)
        {
            var middle = (low + high) >>> 1;
            if (ascending[middle] < bound)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }
}
