using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Calendars;

/// <summary>
/// When a holiday falls: on one date, or in every year. Written as a short text, which is also how it is stored:
/// <list type="bullet">
/// <item>"2027-05-17": once, on that date (ISO 8601).</item>
/// <item>"--03-17": every year on that day and month (the form of xsd:gMonthDay). "--02-29" falls in leap years only.</item>
/// <item>"--05 1MO": the first Monday of every May; "--05 -1MO" the last one (weekday numbers as in RFC 5545, 3.3.10).</item>
/// <item>"easter", "easter+1", "easter-2": so many days from Easter Sunday of the Gregorian calendar.</item>
/// </list>
/// </summary>
public abstract record HolidayRule
{
    // No farther than the earliest Easter is from New Year, so that a day always falls in the year it is asked for.
    private const int MostBeforeEaster = 80;
    private const int MostAfterEaster = 100;

    private static readonly string[] Weekdays = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"];

    /// <summary>The text that says when it falls.</summary>
    public abstract string Text { get; }

    /// <summary>Whether it comes back every year.</summary>
    public virtual bool Recurs => true;

    /// <summary>The day on which it falls in a year; null where that year has none.</summary>
    /// <param name="year">From 1 to 9999.</param>
    public abstract LocalDate? In(int year);

    /// <summary>Reads a rule; null where the text is none. Capitals and spaces around do not matter.</summary>
    public static HolidayRule? Read(string text)
    {
        text = text.Trim().ToUpperInvariant();
        if (LocalDatePattern.Iso.Parse(text).TryGetValue(default, out var date))
            return new Once(date);
        if (text.StartsWith("EASTER", StringComparison.Ordinal))
            return ReadEaster(text[6..]);
        if (text.Length < 4 || !text.StartsWith("--", StringComparison.Ordinal) || !Whole(text[2..4], out var month) || month is < 1 or > 12)
            return null;
        if (text.Length == 7 && text[4] == '-' && Whole(text[5..], out var day) && day >= 1 && day <= DateTime.DaysInMonth(2000, month))
            return new Yearly(month, day);
        return text.Length > 5 && text[4] == ' ' ? ReadWeekday(month, text[5..].Trim()) : null;
    }

    /// <summary>Easter Sunday of a year, by the Gregorian reckoning.</summary>
    public static LocalDate Easter(int year)
    {
        // Meeus/Jones/Butcher; the letters are those of the published algorithm.
        int a = year % 19,
            b = year / 100,
            c = year % 100,
            d = b / 4,
            e = b % 4,
            f = (b + 8) / 25,
            g = (b - f + 1) / 3;
        var h = (19 * a + b - d - g + 15) % 30;
        int i = c / 4,
            k = c % 4,
            l = (32 + 2 * e + 2 * i - h - k) % 7,
            m = (a + 11 * h + 22 * l) / 451;
        var n = h + l - 7 * m + 114;
        return new LocalDate(year, n / 31, n % 31 + 1);
    }

    private static FromEaster? ReadEaster(string rest)
    {
        rest = rest.Trim();
        if (rest.Length == 0)
            return new FromEaster(0);
        return rest[0] is '+' or '-' && Whole(rest[1..], out var days) && days <= (rest[0] == '-' ? MostBeforeEaster : MostAfterEaster)
            ? new FromEaster(rest[0] == '-' ? -days : days)
            : null;
    }

    private static NthWeekday? ReadWeekday(int month, string text)
    {
        if (text.Length < 3 || Array.IndexOf(Weekdays, text[^2..]) is var weekday && weekday < 0)
            return null;
        var number = text[..^2];
        return Whole(number.TrimStart('-'), out var nth) && nth is >= 1 and <= 5 && number.Count(c => c == '-') <= 1
            ? new NthWeekday(month, number[0] == '-' ? -nth : nth, (IsoDayOfWeek)(weekday + 1))
            : null;
    }

    private static bool Whole(string text, out int number) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number);

    /// <summary>One date.</summary>
    public sealed record Once(LocalDate Date) : HolidayRule
    {
        /// <inheritdoc/>
        public override string Text => LocalDatePattern.Iso.Format(Date);

        /// <inheritdoc/>
        public override bool Recurs => false;

        /// <inheritdoc/>
        public override LocalDate? In(int year) => Date.Year == year ? Date : null;
    }

    /// <summary>The same day and month every year.</summary>
    public sealed record Yearly(int Month, int Day) : HolidayRule
    {
        /// <inheritdoc/>
        public override string Text => string.Create(CultureInfo.InvariantCulture, $"--{Month:00}-{Day:00}");

        /// <inheritdoc/>
        public override LocalDate? In(int year) => Day <= DateTime.DaysInMonth(year, Month) ? new LocalDate(year, Month, Day) : null;
    }

    /// <summary>A weekday of a month, counted from its beginning, or from its end when <paramref name="Nth"/> is negative.
    /// A month without a fifth one has none that year.</summary>
    public sealed record NthWeekday(int Month, int Nth, IsoDayOfWeek Weekday) : HolidayRule
    {
        /// <inheritdoc/>
        public override string Text => string.Create(CultureInfo.InvariantCulture, $"--{Month:00} {Nth}{Weekdays[(int)Weekday - 1]}");

        /// <inheritdoc/>
        public override LocalDate? In(int year)
        {
            var days = DateTime.DaysInMonth(year, Month);
            var first = 1 + ((int)Weekday - (int)new LocalDate(year, Month, 1).DayOfWeek + 7) % 7;
            var count = (days - first) / 7 + 1;
            var at = Nth > 0 ? Nth - 1 : count + Nth;
            return at >= 0 && at < count ? new LocalDate(year, Month, first + 7 * at) : null;
        }
    }

    /// <summary>So many days after Easter Sunday, or before it when negative.</summary>
    public sealed record FromEaster(int Days) : HolidayRule
    {
        /// <inheritdoc/>
        public override string Text => Days == 0 ? "easter" : string.Create(CultureInfo.InvariantCulture, $"easter{Days:+0;-0}");

        /// <inheritdoc/>
        public override LocalDate? In(int year) => Easter(year).PlusDays(Days);
    }
}
