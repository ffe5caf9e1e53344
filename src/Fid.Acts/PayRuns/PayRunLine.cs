using System.Security.Cryptography;
using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using Fid.Data.Changes;
using Fid.Data.PayRuns;
using Fid.Data.People;

namespace Fid.Acts.PayRuns;

/// <summary>Somebody whose pay begins, changes or ends in a run.</summary>
/// <param name="News">What is new; one thing at least.</param>
/// <param name="Findings">What stands against it, the worst first.</param>
/// <param name="Periods">What the run pays; empty where it pays them nothing.</param>
/// <param name="Slip">Down to what reaches the bank; null where the run pays nothing, or it cannot be worked out.</param>
/// <param name="Last">The same of the run before; null where that paid them nothing.</param>
/// <param name="Values">What their record holds, by field, on their last day of the period, or on their first where that is later.</param>
/// <param name="Rate">The change by which their rate was typed; null where it comes from a template or by rule.</param>
/// <param name="Facts">All that somebody finds right who finds the line right, by name, in texts that are equal for what is equal.</param>
/// <param name="Check">Who did; null for nobody.</param>
public sealed record PayRunLine(
    CheckedRun Run,
    Employment Employment,
    CurrentRecord Record,
    IReadOnlyList<PayNews> News,
    IReadOnlyList<PayFinding> Findings,
    IReadOnlyList<PayRun> Periods,
    Payslip? Slip,
    Payslip? Last,
    IReadOnlyDictionary<string, JsonElement?> Values,
    Change? Rate,
    IReadOnlyDictionary<string, string> Facts,
    PayCheck? Check
)
{
    /// <summary>The names of facts that are otherwise than they were when it was checked; empty where nothing is, or nobody did.</summary>
    public IReadOnlyList<string> ChangedSince { get; } =
        Check is null
            ? []
            : [.. Facts.Keys.Union(Check.Seen.Keys).Where(f => Facts.GetValueOrDefault(f) != Check.Seen.GetValueOrDefault(f)).Order(StringComparer.Ordinal)];

    /// <summary>Which cost centres bear it; together 100 %.</summary>
    public IReadOnlyList<CostShare> CostCentres { get; } = Bearing(Slip, Values);

    /// <summary>Whether somebody found it right, and it is still as it was then.</summary>
    public bool IsChecked => Check is not null && ChangedSince.Count == 0;

    /// <summary>Whether something stands against it so that it cannot be paid.</summary>
    public bool IsStopped => Findings.Any(f => f.Stops);

    /// <summary>What is equal for equal facts: by it somebody says what they saw.</summary>
    public string Version { get; } =
        Convert.ToHexStringLower(
            SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(Facts.OrderBy(f => f.Key, StringComparer.Ordinal).Select(f => new[] { f.Key, f.Value })))
        )[..24];

    private static IReadOnlyList<CostShare> Bearing(Payslip? slip, IReadOnlyDictionary<string, JsonElement?> values)
    {
        var split = CostSplitRows.Of(values.RowsOf(CostSplitRows.Field));
        CostShare[] person = split.Count > 0 ? [.. split] : [new CostShare(values.Text("cost_centre"), 100)];
        return slip is null ? person : CostShare.Bearing(slip, person);
    }
}
