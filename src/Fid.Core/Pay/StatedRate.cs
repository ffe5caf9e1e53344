namespace Fid.Core.Pay;

/// <summary>Pay as it can be stated: typed for one time, it is known for the others.</summary>
/// <param name="Hour">An hour's pay, four decimals.</param>
/// <param name="Day">A day's, to the minor unit, as all that follow.</param>
/// <param name="Week">A week's.</param>
/// <param name="Month">A month's.</param>
/// <param name="Year">A year's.</param>
public sealed record StatedRate(decimal Hour, decimal Day, decimal Week, decimal Month, decimal Year)
{
    /// <summary>Works the others out, each from the unrounded figure.</summary>
    /// <param name="amount">The pay stated.</param>
    /// <param name="per">What it is paid for.</param>
    /// <param name="weeklyHours">Hours worked a week.</param>
    /// <param name="daysPerWeek">Days worked a week.</param>
    /// <returns>Problems as <see cref="PayRate.Of"/> names them.</returns>
    public static Result<StatedRate> Of(decimal amount, PayPeriod per, decimal weeklyHours, decimal daysPerWeek)
    {
        if (PayRate.Of(amount, per, weeklyHours, weeklyHours, daysPerWeek, PayPeriod.Year) is { Succeeded: false } wrong)
            return Result<StatedRate>.Failed(wrong.Problems);
        var annual = amount * PayRate.TimesPerYear(per, weeklyHours, daysPerWeek);
        decimal In(PayPeriod other) => per == other ? amount : annual / PayRate.TimesPerYear(other, weeklyHours, daysPerWeek);
        return new StatedRate(
            Money.Decimals(In(PayPeriod.Hour), 4),
            Money.Round(In(PayPeriod.Day)),
            Money.Round(In(PayPeriod.Week)),
            Money.Round(In(PayPeriod.Month)),
            Money.Round(In(PayPeriod.Year))
        );
    }
}
