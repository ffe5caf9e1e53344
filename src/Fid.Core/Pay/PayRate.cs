namespace Fid.Core.Pay;

/// <summary>What a stated rate of pay comes to over other times.</summary>
/// <param name="Annual">A year's pay at the hours worked, to the minor unit.</param>
/// <param name="FullTimeAnnual">A year's pay scaled to full-time hours, to the minor unit: what a pay band is compared with.</param>
/// <param name="Hourly">An hour's pay, four decimals.</param>
/// <param name="PerPeriod">Pay of one pay period, to the minor unit.</param>
public sealed record PayRate(decimal Annual, decimal FullTimeAnnual, decimal Hourly, decimal PerPeriod)
{
    /// <summary>The weeks of a year, as pay counts them.</summary>
    public const decimal WeeksPerYear = 52;

    /// <summary>Most hours a week can hold.</summary>
    public const decimal HoursInWeek = 168;

    /// <summary>
    /// Works out a rate. All lines are rounded half away from zero, each from unrounded figures. Problems by path when hours are
    /// not above 0 and at most 168, days not above 0 and at most 7 (or missing for pay by the day), the amount is negative or
    /// above a million million, or <paramref name="payEvery"/> is an hour or a day.
    /// </summary>
    /// <param name="amount">The pay stated, in the currency's major unit.</param>
    /// <param name="per">What the amount is paid for.</param>
    /// <param name="weeklyHours">Hours the person works a week.</param>
    /// <param name="fullTimeHours">Hours of somebody full-time a week.</param>
    /// <param name="daysPerWeek">Days the person works a week; needed when paid by the day.</param>
    /// <param name="payEvery">How often pay is paid out.</param>
    public static Result<PayRate> Of(decimal amount, PayPeriod per, decimal weeklyHours, decimal fullTimeHours, decimal? daysPerWeek, PayPeriod payEvery)
    {
        var problems = new List<Problem>();
        if (amount is < 0 or > Money.Most)
            problems.Add(new Problem("/amount", "out-of-range", "Pay is 0 or more, and at most a million million."));
        RequireHours(weeklyHours, "/weeklyHours", problems);
        RequireHours(fullTimeHours, "/fullTimeHours", problems);
        if (per == PayPeriod.Day && daysPerWeek is null)
            problems.Add(new Problem("/daysPerWeek", "missing-property", "Pay by the day needs the days worked a week."));
        if (daysPerWeek is <= 0 or > 7)
            problems.Add(new Problem("/daysPerWeek", "out-of-range", "Days a week are above 0 and at most 7."));
        if (payEvery is PayPeriod.Hour or PayPeriod.Day)
            problems.Add(new Problem("/payEvery", "bad-value", "Pay is paid out every week, fortnight, fourWeeks, halfMonth, month or year."));
        if (problems.Count > 0)
            return Result<PayRate>.Failed(problems);

        var annual = amount * TimesPerYear(per, weeklyHours, daysPerWeek ?? 0);
        return new PayRate(
            Money.Round(annual),
            Money.Round(annual * fullTimeHours / weeklyHours),
            Money.Decimals(per == PayPeriod.Hour ? amount : annual / (weeklyHours * WeeksPerYear), 4),
            Money.Round(annual / TimesPerYear(payEvery, weeklyHours, daysPerWeek ?? 0))
        );
    }

    /// <summary>How many periods a year has, for periods from a week to a year.</summary>
    public static decimal PeriodsPerYear(PayPeriod period) => TimesPerYear(period, 0, 0);

    internal static decimal TimesPerYear(PayPeriod period, decimal weeklyHours, decimal daysPerWeek) =>
        period switch
        {
            PayPeriod.Hour => weeklyHours * WeeksPerYear,
            PayPeriod.Day => daysPerWeek * WeeksPerYear,
            PayPeriod.Week => 52,
            PayPeriod.Fortnight => 26,
            PayPeriod.FourWeeks => 13,
            PayPeriod.HalfMonth => 24,
            PayPeriod.Month => 12,
            _ => 1,
        };

    private static void RequireHours(decimal hours, string path, List<Problem> problems)
    {
        if (hours is <= 0 or > HoursInWeek)
            problems.Add(new Problem(path, "out-of-range", "Hours a week are above 0 and at most 168."));
    }
}
