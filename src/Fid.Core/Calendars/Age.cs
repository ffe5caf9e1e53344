using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>How old somebody, or something, is.</summary>
public static class Age
{
    /// <summary>
    /// The whole years between two days; 0 before the first of them. What began on 29 February is a year older on 1 March of a common year.
    /// </summary>
    public static int On(LocalDate born, LocalDate on)
    {
        if (on < born)
            return 0;
        return on.Year - born.Year - ((on.Month, on.Day).CompareTo((born.Month, born.Day)) < 0 ? 1 : 0);
    }
}
