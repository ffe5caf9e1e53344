namespace Fid.Core.Pay;

/// <summary>Hours of a period at several rates, as of somebody with a second job.</summary>
public static class MixedRates
{
    /// <summary>The weighted average of the rates: all that the hours pay, over all hours; four decimals. Null without hours.</summary>
    public static decimal? Average(IReadOnlyCollection<RatedHours> hours) =>
        hours.Sum(h => h.Hours) is > 0 and var all ? Money.Decimals(hours.Sum(h => h.Hours * h.Rate) / all, 4) : null;

    /// <summary>What overtime pays on top of the hours themselves, to the minor unit: its hours at the weighted average, which is not rounded
    /// before, times what the factor is above 1.</summary>
    /// <param name="hours">All hours of the period, overtime among them, each at its own rate.</param>
    /// <param name="overtime">How many of them are overtime; not negative.</param>
    /// <param name="factor">What overtime pays, as a multiple of the rate: 1.5 is half as much again.</param>
    public static decimal Overtime(IReadOnlyCollection<RatedHours> hours, decimal overtime, decimal factor) =>
        hours.Sum(h => h.Hours) is > 0 and var all ? Money.Round(hours.Sum(h => h.Hours * h.Rate) * overtime * (factor - 1) / all) : 0;
}

/// <summary>Hours at a rate.</summary>
/// <param name="Hours">How many; not negative.</param>
/// <param name="Rate">What each of them pays.</param>
public sealed record RatedHours(decimal Hours, decimal Rate);
