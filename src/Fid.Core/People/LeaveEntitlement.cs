using NodaTime;

namespace Fid.Core.People;

/// <summary>The leave of somebody who starts within a leave year.</summary>
public static class LeaveEntitlement
{
    /// <summary>Days × full-time share × days left of the leave year, the first one included, ÷ all its days; rounded.</summary>
    /// <param name="days">The days of a whole year at full time.</param>
    /// <param name="fte">The share of full time: 1 for full time.</param>
    /// <param name="start">The first day at the firm. Before the year began, the whole year counts; after it, nothing.</param>
    /// <param name="yearStart">The first day of the leave year.</param>
    /// <param name="yearEnd">Its last day, not before the first.</param>
    /// <param name="rounding">How the days are rounded.</param>
    public static decimal Days(decimal days, decimal fte, LocalDate start, LocalDate yearStart, LocalDate yearEnd, LeaveRounding rounding)
    {
        var all = Period.DaysBetween(yearStart, yearEnd) + 1;
        var left = Math.Max(0, Period.DaysBetween(LocalDate.Max(start, yearStart), yearEnd) + 1);
        // Divided last: an exact half stays one.
        var exact = days * fte * left / all;
        return rounding switch
        {
            LeaveRounding.UpHalf => Math.Ceiling(exact * 2) / 2,
            LeaveRounding.NearestHalf => Math.Round(exact * 2, MidpointRounding.AwayFromZero) / 2,
            LeaveRounding.UpDay => Math.Ceiling(exact),
            LeaveRounding.NearestDay => Math.Round(exact, MidpointRounding.AwayFromZero),
            _ => Math.Round(exact, 2, MidpointRounding.AwayFromZero),
        };
    }
}

/// <summary>How days of leave are rounded.</summary>
public enum LeaveRounding
{
    /// <summary>To two decimals, half away from zero.</summary>
    None,

    /// <summary>Up to half a day.</summary>
    UpHalf,

    /// <summary>To the nearest half day, ties up.</summary>
    NearestHalf,

    /// <summary>Up to a whole day.</summary>
    UpDay,

    /// <summary>To the nearest whole day, ties up.</summary>
    NearestDay,
}
