using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Pay;

namespace Fid.Core.PayElements;

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
            yield return new Problem(
                $"/{at.Address(Percent)}",
                "not-hundred",
                FormattableString.Invariant($"The shares add up to {sum:0.####} %, and have to be 100 % together.")
            );
        foreach (var twice in held.GroupBy(r => r.Text(CostCentre)).Where(g => g.Key is not null).SelectMany(g => g.Skip(1)))
            yield return new Problem($"/{twice.Address(CostCentre)}", "stands-twice", "This cost centre has a share already. Put the two together.");
    }
}
