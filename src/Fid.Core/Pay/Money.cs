namespace Fid.Core.Pay;

/// <summary>Rounding as pay is rounded: half away from zero.</summary>
public static class Money
{
    /// <summary>More than anybody is paid: a bound that keeps every product within a decimal.</summary>
    public const decimal Most = 1_000_000_000_000m;

    /// <summary>To a currency's minor unit, which is shown even when zero: 5 becomes 5.00.</summary>
    public static decimal Round(decimal amount, int minorDigits = 2) => Decimals(amount, minorDigits);

    /// <summary>To a number of decimals, which are shown even when zero.</summary>
    public static decimal Decimals(decimal value, int decimals) =>
        Math.Round(value, decimals, MidpointRounding.AwayFromZero) + new decimal(0, 0, 0, false, (byte)decimals);
}
