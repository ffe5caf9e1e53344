using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>Dates as whole numbers (0 is Monday, 0001-01-01), for the inner loops that add and compare millions of them.</summary>
internal static class Day
{
    public const int First = 0;
    public static readonly int Last = DateOnly.MaxValue.DayNumber;

    public static int Number(LocalDate date) => date.ToDateOnly().DayNumber;

    public static LocalDate Date(int day) => LocalDate.FromDateOnly(DateOnly.FromDayNumber(day));

    public static LocalDate? DateOrNull(long day) => day < First || day > Last ? null : Date((int)day);

    public static int Clamp(long day) => (int)Math.Clamp(day, First, Last);

    /// <summary>The same day of the month, months later or earlier, or that month's last day where it has no such day.</summary>
    public static int AddMonths(int day, int months)
    {
        var date = DateOnly.FromDayNumber(day);
        var wanted = date.Year * 12L + date.Month - 1 + months;
        return wanted < 12 ? First
            : wanted >= 12 * 10_000L ? Last
            : date.AddMonths(months).DayNumber;
    }
}
