namespace Fid.Core.Chasing;

/// <summary>How many days things took, at least one of them. Percentiles are those of OpenFormula's PERCENTILE (OASIS ODF 1.3 part 4, 6.18.51),
/// linear between ranks, and exact: they are worked out in tenths of a day.</summary>
internal sealed class DaySpread(IEnumerable<int> days)
{
    private readonly int[] _days = [.. days.Order()];

    /// <summary>The days that so many of ten did not exceed, to two decimals.</summary>
    /// <param name="tenths">How many of ten, from 0 to 10.</param>
    public decimal Percentile(int tenths) => decimal.Round(Tenths(tenths) / 10m, 2, MidpointRounding.AwayFromZero);

    /// <summary>The same in whole days, rounded up.</summary>
    public int WholeDays(int tenths) => (int)((Tenths(tenths) + 9) / 10);

    private long Tenths(int tenths)
    {
        var (rank, part) = Math.DivRem((long)tenths * (_days.Length - 1), 10);
        var (below, above) = (_days[rank], _days[Math.Min(rank + 1, _days.Length - 1)]);
        return below * 10L + part * (above - below);
    }
}
