using System.Text.Json;
using Fid.Core.Fields;

namespace Fid.Core.Pay;

/// <summary>Over which cost centres what somebody costs is shared out, in the rows of a record.</summary>
public static class CostSplitRows
{
    /// <summary>The key of the field.</summary>
    public const string Field = "cost_split";

    internal const string CostCentre = "cost_centre";
    internal const string Percent = "percent";

    /// <summary>The columns as fields of the record.</summary>
    public static IReadOnlyList<string> Fields { get; } = [FieldAddress.ColumnKey(Field, CostCentre), FieldAddress.ColumnKey(Field, Percent)];

    /// <summary>Reads the shares, in the order of cost centres; those that name none or no percentage are passed over.</summary>
    /// <param name="values">What the record holds, by address.</param>
    public static IReadOnlyList<CostShare> Of(IReadOnlyDictionary<string, JsonElement> values) =>
        [
            .. HeldRows
                .Of(Field, values)
                .Where(r => r.Text(CostCentre) is not null && r.Number(Percent) is not null)
                .Select(r => new CostShare(r.Text(CostCentre)!, r.Number(Percent)!.Value))
                .OrderBy(s => s.CostCentre, StringComparer.Ordinal),
        ];

    /// <summary>What is wrong with the shares, where one was touched: one says no percentage, a cost centre stands twice, or they are not 100 % together.
    /// The paths are a slash and the address of the cell to mend.</summary>
    /// <param name="values">All the record would hold, by address.</param>
    /// <param name="touched">The addresses that were entered.</param>
    public static IEnumerable<Problem> Problems(IReadOnlyDictionary<string, JsonElement> values, IEnumerable<string> touched)
    {
        var rows = touched.Select(FieldAddress.Read).Where(a => a.Whole == Field && a.RowId is not null).Select(a => a.RowId!.Value).ToList();
        if (rows.Count == 0)
            yield break;
        var held = HeldRows.Of(Field, values);
        // The one that was touched last, and where that was taken away another one.
        if (held.Count == 0)
            yield break;
        var at = held.FirstOrDefault(r => r.Id == rows[^1]) ?? held[0];
        if (held.FirstOrDefault(r => r.Number(Percent) is null) is { } empty)
            yield return new Problem($"/{empty.Address(Percent)}", "missing", "Say how much of the cost it bears, in percent.");
        else if (held.Sum(r => r.Number(Percent)) is { } sum and not 100)
            yield return new Problem($"/{at.Address(Percent)}", "not-hundred", FormattableString.Invariant($"The shares add up to {sum:0.####} %. Together they have to be 100 %."));
        foreach (var twice in held.GroupBy(r => r.Text(CostCentre)).Where(g => g.Key is not null).SelectMany(g => g.Skip(1)))
            yield return new Problem($"/{twice.Address(CostCentre)}", "stands-twice", "This cost centre has a share already. Put the two together.");
    }
}

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
        foreach (var share in shares)
        {
            // What is due to all so far, rounded once: the shares of thirds of 100 come to 100 again.
            percent += share.Percent;
            var upTo = Money.Round(amount * percent / shares.Sum(s => s.Percent));
            parts.Add(upTo - given);
            given = upTo;
        }
        return parts;
    }
}
