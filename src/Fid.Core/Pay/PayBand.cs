namespace Fid.Core.Pay;

/// <summary>Where pay stands in the band of its grade.</summary>
/// <param name="CompaRatio">Pay over the band's middle, three decimals.</param>
/// <param name="Penetration">How far into the band: 0 at its minimum, 1 at its maximum; three decimals. Null where the band is a
/// single figure, in which nothing can be far.</param>
/// <param name="Position">Below, within or above; both ends are within.</param>
public sealed record PayBand(decimal CompaRatio, decimal? Penetration, BandPosition Position)
{
    /// <summary>Compares pay with a band. All four figures are for the same time, as a rule a full-time year. Problems by path
    /// when a figure is negative or not in order.</summary>
    public static Result<PayBand> Of(decimal pay, decimal min, decimal mid, decimal max)
    {
        var problems = new List<Problem>();
        foreach (var (value, path) in new[] { (pay, "/pay"), (min, "/min"), (mid, "/mid"), (max, "/max") })
            if (value is < 0 or > Money.Most)
                problems.Add(new Problem(path, "out-of-range", "Pay is 0 or more, and at most a million million."));
        if (mid == 0)
            problems.Add(new Problem("/mid", "out-of-range", "The middle of a band is above 0."));
        if (mid < min)
            problems.Add(new Problem("/mid", "not-in-order", "The middle of a band is not below its minimum."));
        if (max < mid)
            problems.Add(new Problem("/max", "not-in-order", "The maximum of a band is not below its middle."));
        if (problems.Count > 0)
            return Result<PayBand>.Failed(problems);

        return new PayBand(
            Money.Decimals(pay / mid, 3),
            max == min ? null : Money.Decimals((pay - min) / (max - min), 3),
            pay < min ? BandPosition.Below
                : pay > max ? BandPosition.Above
                : BandPosition.Within
        );
    }

    /// <summary>How far pay lies outside a band, in percent of the end it has passed: 2.4 is 2.4 % above the maximum, −2.4 below the minimum; one
    /// decimal. Null within it, both ends included, and below or above an end of 0.</summary>
    public static decimal? Outside(decimal pay, decimal min, decimal max)
    {
        var passed = pay < min ? min : max;
        return (min <= pay && pay <= max) || passed == 0 ? null : Money.Decimals((pay - passed) / passed * 100, 1);
    }
}

/// <summary>Whether pay lies in its band.</summary>
public enum BandPosition
{
    /// <summary>Less than the minimum.</summary>
    Below,

    /// <summary>From the minimum to the maximum.</summary>
    Within,

    /// <summary>More than the maximum.</summary>
    Above,
}
