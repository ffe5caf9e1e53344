namespace Fid.Core.Pay;

/// <summary>What a cost centre bears.</summary>
/// <param name="CostCentre">Its code; null for what no cost centre is named for.</param>
/// <param name="Percent">Of what somebody costs; above 0, and 100 of all shares together.</param>
public sealed record CostShare(string? CostCentre, decimal Percent)
{
    /// <summary>Who bears what a slip comes to: what is paid beside base pay the cost centre it names, all else the shares of the person.</summary>
    /// <param name="slip">What is paid.</param>
    /// <param name="person">The shares of the person; together 100 %.</param>
    /// <returns>A share for each cost centre; together 100 %, perhaps not rounded.</returns>
    public static IReadOnlyList<CostShare> Bearing(Payslip slip, IReadOnlyList<CostShare> person)
    {
        var named = slip.Elements.Where(e => e.Element.CostCentre is not null).Select(e => new CostShare(e.Element.CostCentre, e.Amount)).ToList();
        if (slip.Gross == 0 || named.Count == 0)
            return person;
        var rest = slip.Gross - named.Sum(n => n.Percent);
        return
        [
            .. person
                .Select(p => new CostShare(p.CostCentre, rest * p.Percent / 100))
                .Concat(named)
                .GroupBy(s => s.CostCentre)
                .Select(s => new CostShare(s.Key, s.Sum(a => a.Percent) * 100 / slip.Gross)),
        ];
    }

    /// <summary>An amount shared out, to the minor unit, so that the shares add up to it again.</summary>
    /// <param name="amount">The amount, to the minor unit.</param>
    /// <param name="shares">The shares; together 100 %, and at least one.</param>
    public static IReadOnlyList<decimal> Of(decimal amount, IReadOnlyList<CostShare> shares)
    {
        var (parts, percent, given) = (new List<decimal>(), 0m, 0m);
        var all = shares.Sum(s => s.Percent);
        foreach (var share in shares)
        {
            // What is due to all so far, rounded once: the shares of thirds of 100 come to 100 again.
            percent += share.Percent;
            var upTo = Money.Round(amount * percent / all);
            parts.Add(upTo - given);
            given = upTo;
        }
        return parts;
    }
}
