namespace Fid.Core.Chasing;

/// <summary>How many days things took, at least one of them. Percentiles are those of OpenFormula's PERCENTILE (OASIS ODF 1.3 part 4, 6.18.51),
/// linear between ranks, and exact: they are worked out in hundredths of a day.</summary>
internal sealed class DaySpread(IEnumerable<int> days)
{
    private readonly int[] _days = [.. days.Order()];

    /// <summary>The days that so many of a hundred did not exceed, to two decimals.</summary>
    /// <param name="percent">How many of a hundred, from 0 to 100.</param>
    public decimal Percentile(int percent) => Hundredths(percent) / 100m;

    /// <summary>The same in whole days, rounded up.</summary>
    public int WholeDays(int percent) => (int)((Hundredths(percent) + 99) / 100);

    private long Hundredths(int percent)
    {
        var (rank, part) = Math.DivRem((long)percent * (_days.Length - 1), 100);
        var (below, above) = (_days[rank], _days[Math.Min(rank + 1, _days.Length - 1)]);
        return below * 100L + part * (above - below);
    }
}
