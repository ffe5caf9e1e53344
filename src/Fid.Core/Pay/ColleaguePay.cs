namespace Fid.Core.Pay;

/// <summary>How pay stands among that of colleagues.</summary>
public static class ColleaguePay
{
    /// <summary>Of fewer colleagues nothing is told in common: what is said of all would be said of each.</summary>
    public const int Fewest = 3;

    /// <summary>How far pay lies from the middle of its colleagues', in percent of it: 5.0 is 5 % above, −5.0 below; one decimal. Null with fewer than
    /// <see cref="Fewest"/>, or where the middle is 0.</summary>
    /// <param name="pay">The pay; for the same time and hours as theirs.</param>
    /// <param name="colleagues">What the others are paid, in whatever order.</param>
    public static decimal? Distance(decimal pay, IReadOnlyList<decimal> colleagues)
    {
        if (colleagues.Count < Fewest)
            return null;
        decimal[] sorted = [.. colleagues.Order()];
        var middle = sorted.Length % 2 == 1 ? sorted[sorted.Length / 2] : (sorted[sorted.Length / 2 - 1] + sorted[sorted.Length / 2]) / 2;
        return middle == 0 ? null : Money.Decimals((pay - middle) / middle * 100, 1);
    }
}
