using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>
/// Reads dates as people type them, in English or German: "2027-03-08", "8/3", "8.3.27", "8 mar", "mon", "next mon", "today",
/// "+10" or "+10d" (days), "+10wd" (working days), "+2w", "+1m". Day comes before month; of a year with two digits 50 to 99 are of
/// the last century. A date without a year is the first one
/// from two months ago on, since what has just begun is entered too, but most of what is typed is to come.
/// </summary>
public static partial class DateEntry
{
    private const int MonthsBack = 2;

    private static readonly Dictionary<string, int> NearDays = new(StringComparer.Ordinal)
    {
        ["today"] = 0,
        ["tomorrow"] = 1,
        ["yesterday"] = -1,
        ["heute"] = 0,
        ["morgen"] = 1,
        ["gestern"] = -1,
    };

    // Monday first, and January first. A word is known by its beginning.
    private static readonly string[][] Weekdays =
    [
        ["monday", "montag"],
        ["tuesday", "dienstag"],
        ["wednesday", "mittwoch"],
        ["thursday", "donnerstag"],
        ["friday", "freitag"],
        ["saturday", "samstag"],
        ["sunday", "sonntag"],
    ];

    private static readonly string[][] Months =
    [
        ["january", "januar", "jänner"],
        ["february", "februar"],
        ["march", "märz", "mrz"],
        ["april"],
        ["may", "mai"],
        ["june", "juni"],
        ["july", "juli"],
        ["august"],
        ["september"],
        ["october", "oktober"],
        ["november"],
        ["december", "dezember"],
    ];

    /// <summary>The date meant, or null when the text means none that exists.</summary>
    /// <param name="text">What was typed; capitals and space around it do not matter.</param>
    /// <param name="today">The firm's date.</param>
    /// <param name="calendar">Counts working days.</param>
    public static LocalDate? Read(string text, LocalDate today, WorkCalendar calendar)
    {
        var typed = text.Trim().ToLowerInvariant();
        if (NearDays.TryGetValue(typed, out var days))
            return Within(today, days);
        if (Iso().Match(typed) is { Success: true } iso)
            return Exact(Number(iso, 1), Number(iso, 2), Number(iso, 3));
        if (Offset().Match(typed) is { Success: true } offset)
            return Relative(offset, today, calendar);
        if (Numbers().Match(typed) is { Success: true } numbers)
            return DayMonth(Number(numbers, 1), Number(numbers, 2), numbers.Groups[3], today);
        if (DayThenMonth().Match(typed) is { Success: true } named && MonthOf(named.Groups[2].Value) is { } month)
            return DayMonth(Number(named, 1), month, named.Groups[3], today);
        if (MonthThenDay().Match(typed) is { Success: true } turned && MonthOf(turned.Groups[1].Value) is { } first)
            return DayMonth(Number(turned, 2), first, turned.Groups[3], today);
        if (Weekday().Match(typed) is { Success: true } weekday && WeekdayOf(weekday.Groups[1].Value) is { } day)
            return today.Next(day);
        return null;
    }

    private static LocalDate? Relative(Match match, LocalDate today, WorkCalendar calendar)
    {
        var amount = Number(match, 2) * (match.Groups[1].Value == "-" ? -1 : 1);
        return match.Groups[3].Value switch
        {
            "wd" or "at" => calendar.Add(today, amount),
            "w" => Within(today, 7 * amount),
            "m" => amount is > -1200 and < 1200 ? today.PlusMonths(amount) : null,
            _ => Within(today, amount),
        };
    }

    private static LocalDate? DayMonth(int day, int month, Group year, LocalDate today)
    {
        if (year.Success)
        {
            var typed = int.Parse(year.ValueSpan, CultureInfo.InvariantCulture);
            return Exact(year.Length == 2 ? TwoDigitYear.Full(typed) : typed, month, day);
        }
        // 29 February needs a year that has one, so look a few ahead.
        return Enumerable.Range(today.Year - 1, 10).Select(y => Exact(y, month, day)).FirstOrDefault(d => d >= today.PlusMonths(-MonthsBack));
    }

    private static LocalDate? Exact(int year, int month, int day) =>
        year is >= 1 and <= 9999 && month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    private static LocalDate? Within(LocalDate today, int days) => Day.DateOrNull((long)Day.Number(today) + days);

    private static int? MonthOf(string word) => Place(Months, word) is var place and >= 0 ? place + 1 : null;

    private static IsoDayOfWeek? WeekdayOf(string word) => Place(Weekdays, word) is var place and >= 0 ? (IsoDayOfWeek)(place + 1) : null;

    private static int Place(string[][] names, string word) => Array.FindIndex(names, n => n.Any(name => name.StartsWith(word, StringComparison.Ordinal)));

    private static int Number(Match match, int group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^([0-9]{4})-([0-9]{1,2})-([0-9]{1,2})$")]
    private static partial Regex Iso();

    [GeneratedRegex(@"^([+-])\s*([0-9]{1,6})\s*(wd|at|d|t|w|m)?$")]
    private static partial Regex Offset();

    [GeneratedRegex(@"^([0-9]{1,2})[./\s]\s*([0-9]{1,2})[./\s]?\s*([0-9]{4}|[0-9]{2})?$")]
    private static partial Regex Numbers();

    [GeneratedRegex(@"^(?:\p{L}+,?\s+)?([0-9]{1,2})\.?\s*(\p{L}{3,})\.?\s*([0-9]{4}|[0-9]{2})?$")]
    private static partial Regex DayThenMonth();

    [GeneratedRegex(@"^(\p{L}{3,})\.?\s+([0-9]{1,2})(?:\s*,?\s+([0-9]{4}))?$")]
    private static partial Regex MonthThenDay();

    [GeneratedRegex(@"^(?:next\s+|nächste[nr]?\s+)?(\p{L}{2,})$")]
    private static partial Regex Weekday();
}
