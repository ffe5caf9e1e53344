namespace Fid.Core.Pay;

/// <summary>How often, or per what, pay is stated.</summary>
public enum PayPeriod
{
    /// <summary>An hour worked.</summary>
    Hour,

    /// <summary>A day worked.</summary>
    Day,

    /// <summary>A week; 52 in the year.</summary>
    Week,

    /// <summary>Two weeks; 26 in the year.</summary>
    Fortnight,

    /// <summary>Four weeks; 13 in the year.</summary>
    FourWeeks,

    /// <summary>Half a month; 24 in the year.</summary>
    HalfMonth,

    /// <summary>A month; 12 in the year.</summary>
    Month,

    /// <summary>A year.</summary>
    Year,
}
