using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using Fid.Server.Lists;
using Fid.Server.People;
using NodaTime;

namespace Fid.Server.PayRuns;

/// <param name="Groups">All pay groups that have a run.</param>
/// <param name="PayGroup">The one that is shown; null where there is none.</param>
/// <param name="Last">The period before; null before the first.</param>
/// <param name="Next">The period after.</param>
/// <param name="Lines">The worst first.</param>
/// <param name="Ungrouped">Newcomers without a pay group: no run pays them.</param>
/// <param name="Checklist">What is to be done for the run; null where no checklist of it is begun.</param>
/// <param name="Templates">What a checklist can be begun from.</param>
public sealed record PayCheckResponse(
    PayCheckGroup[] Groups,
    string? PayGroup,
    PaidPeriod? Period,
    PaidPeriod? Last,
    PaidPeriod? Next,
    PayCheckLine[] Lines,
    PayCheckTotals Totals,
    UngroupedPerson[] Ungrouped,
    RunChecklistResponse? Checklist,
    RunTemplate[] Templates
);

/// <param name="ToCheck">How many lines nobody found right, or that changed since.</param>
/// <param name="Stopped">How many cannot be paid as they stand.</param>
public sealed record PayCheckGroup(string Code, string Name, int ToCheck, int Stopped);

public sealed record UngroupedPerson(Guid EmploymentId, string Name, LocalDate Start);

/// <summary>Somebody whose pay begins, changes or ends in the run.</summary>
/// <param name="LastGross">What the run before paid; null for nothing.</param>
/// <param name="Amounts">What this one pays; null where it pays nothing, or it cannot be worked out.</param>
/// <param name="Difference">What this one pays more than the one before, negative for less; null where one of them pays nothing.</param>
/// <param name="Check">Who found it right; null for nobody.</param>
/// <param name="Version">By which somebody says what they saw.</param>
public sealed record PayCheckLine(
    Guid EmploymentId,
    string Number,
    string Name,
    PayNews[] News,
    PayCheckFinding[] Findings,
    decimal? LastGross,
    PayAmounts? Amounts,
    decimal? Difference,
    PayCheckMark? Check,
    string? Department,
    string? CostCentre,
    string Version
)
{
    internal static PayCheckLine Of(PayRunLine line, Reader reader, ListNames names)
    {
        var rights = reader.On(line.Record);
        return new PayCheckLine(
            line.Employment.Id,
            line.Employment.Number,
            reader.NameOf(line.Record, line.Employment.Number),
            [.. line.News],
            [.. line.Findings.Where(f => IsSeen(f.Kind)).Select(f => new PayCheckFinding(f.Kind, f.Stops, PaidPeriod.Of(f.Run), f.Number))],
            line.Last?.Gross,
            line.Slip is { } slip ? PayAmounts.Of(slip) : null,
            line.Slip?.Gross - line.Last?.Gross,
            line.Check is { } check
                ? new PayCheckMark(
                    check.ByName,
                    check.At,
                    [.. line.ChangedSince.Where(f => reader.Fields.Set.Find(f) is null || rights.Sees(f))],
                    line.IsChecked
                )
                : null,
            rights.Sees("department") ? names.Of("departments", line.Values.Text("department")) : null,
            SeesCostCentres(reader, rights) && line.CostCentres.Any(s => s.CostCentre is not null)
                ? string.Join(", ", line.CostCentres.Select(s => names.Of("costCentres", s.CostCentre)).Where(n => n is not null))
                : null,
            line.Version
        );

        bool IsSeen(PayFindingKind kind) =>
            kind switch
            {
                PayFindingKind.NoBankAccount => rights.Sees("bank_account") && rights.Sees("payment_method"),
                PayFindingKind.OutsideBand => rights.Sees("job"),
                _ => true,
            };
    }

    /// <summary>Whether somebody sees which cost centres bear what somebody is paid.</summary>
    internal static bool SeesCostCentres(Reader reader, FieldRights rights) =>
        rights.Sees("cost_centre") && reader.SeesAllThereIs(rights, CostSplitRows.Fields);
}

/// <param name="Run">The run that pays them instead, where the cut-off was missed.</param>
/// <param name="Number">Days, percent, a rate or an amount, as the kind has it.</param>
public sealed record PayCheckFinding(PayFindingKind Kind, bool Stops, PaidPeriod? Run, decimal? Number);

/// <summary>Sums over all periods that a run pays.</summary>
/// <param name="EmployerCost">Gross and what the firm pays beside it.</param>
public sealed record PayAmounts(decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost)
{
    internal static PayAmounts Of(Payslip slip) => new(slip.Gross, slip.Deductions, slip.Net, slip.EmployerCost);

    internal static PayAmounts Sum(IEnumerable<PayRunLine> lines) => Sum(lines.Select(l => l.Slip).OfType<Payslip>().Select(Of));

    internal static PayAmounts Sum(IEnumerable<PayAmounts> amounts) =>
        amounts.Aggregate(new PayAmounts(0, 0, 0, 0), (a, b) =>
            new PayAmounts(a.Gross + b.Gross, a.Deductions + b.Deductions, a.Net + b.Net, a.EmployerCost + b.EmployerCost)
        );

    /// <summary>The parts of each share: they add up to the whole, and in each what is taken off and net to gross.</summary>
    internal IEnumerable<PayAmounts> Shared(IReadOnlyList<CostShare> shares)
    {
        var (gross, deductions, cost) = (CostShare.Of(Gross, shares), CostShare.Of(Deductions, shares), CostShare.Of(EmployerCost, shares));
        return shares.Select((_, i) => new PayAmounts(gross[i], deductions[i], gross[i] - deductions[i], cost[i]));
    }
}

/// <summary>That somebody found a line right.</summary>
/// <param name="ChangedSince">What is otherwise than it was then: "start", "end", "periods", "gross", "net", "employerCost", or the key of a field.</param>
/// <param name="Holds">Whether nothing is.</param>
public sealed record PayCheckMark(string ByName, Instant At, string[] ChangedSince, bool Holds);

/// <summary>What the lines come to: of all, and shared out by department and by cost centre so that each adds up to all again.</summary>
/// <param name="Departments">Empty for those who do not see departments.</param>
/// <param name="CostCentres">Empty for those who do not see cost centres.</param>
public sealed record PayCheckTotals(PayAmounts All, PayShare[] Departments, PayShare[] CostCentres)
{
    internal static PayCheckTotals Of(IReadOnlyCollection<PayRunLine> lines, Reader reader, ListNames names)
    {
        return new PayCheckTotals(
            PayAmounts.Sum(lines),
            By("departments", r => r.Sees("department"), l => [new CostShare(l.Values.Text("department"), 100)]),
            By("costCentres", r => PayCheckLine.SeesCostCentres(reader, r), l => l.CostCentres)
        );

        PayShare[] By(string list, Func<FieldRights, bool> sees, Func<PayRunLine, IReadOnlyList<CostShare>> shares) =>
            lines.All(l => sees(reader.On(l.Record)))
                ?
                [
                    .. lines
                        .Where(l => l.Slip is not null)
                        .SelectMany(l => shares(l).Zip(PayAmounts.Of(l.Slip!).Shared(shares(l)), (share, amounts) => (share.CostCentre, Amounts: amounts)))
                        .GroupBy(s => s.CostCentre)
                        .Select(g => new PayShare(g.Key, names.Of(list, g.Key), g.Count(), PayAmounts.Sum(g.Select(s => s.Amounts))))
                        .OrderBy(s => s.Code is null)
                        .ThenBy(s => s.Name, StringComparer.Ordinal),
                ]
                : [];
    }
}

/// <param name="Code">The code of the department or cost centre; null for those who have none.</param>
public sealed record PayShare(string? Code, string? Name, int People, PayAmounts Amounts);

/// <param name="Periods">What the run pays.</param>
/// <param name="Slip">Down to what reaches the bank; null where the run pays nothing, or it cannot be worked out.</param>
/// <param name="Typed">Who typed the rate; null where it comes from a template or by rule.</param>
public sealed record PayCheckWorking(PaidPeriod[] Periods, PayslipResponse? Slip, decimal? Rate, PayRateTyped? Typed);

public sealed record PayRateTyped(string ByName, Instant At, string? Why);

/// <param name="Period">A day of the run's period.</param>
/// <param name="Checked">Whether it is right; else that it is was said too early.</param>
public sealed record PayCheckRequest(string PayGroup, LocalDate Period, PayCheckedPerson[] People, bool Checked);

/// <param name="Version">That of the line that was seen.</param>
public sealed record PayCheckedPerson(Guid EmploymentId, string Version);
