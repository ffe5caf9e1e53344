namespace Fid.Core.Pay;

/// <summary>What a run pays somebody, line by line, down to what reaches the bank.</summary>
/// <param name="Lines">A line for each component: what it comes to over all periods that the run pays.</param>
/// <param name="Gross">All earnings.</param>
/// <param name="Deductions">All deductions.</param>
/// <param name="Net">Gross less deductions.</param>
/// <param name="EmployerCost">Gross and what the employer pays beside it.</param>
public sealed record Payslip(IReadOnlyList<PayslipLine> Lines, decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost)
{
    /// <summary>
    /// Works it out. Each period is a slip of its own, arrears too, so that floors, caps and brackets hold for each; the lines are their sums. What
    /// the person's own record states for a period is paid in part where the period is, like the base pay.
    /// </summary>
    /// <param name="question">Whose pay it is; its amounts are the base pay of a whole period.</param>
    /// <param name="components">Those that hold, with what the record states on the first day.</param>
    /// <param name="runs">The periods that are paid; each one on a day of which they work.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    /// <param name="later">What the record states from later days on, by the code of the component it stands for; left out where nothing changes.</param>
    /// <returns>Problems of single periods as <see cref="FirstPay.Of"/> names them, and those of <see cref="PayPreview.Of"/>.</returns>
    public static Result<Payslip> Of(
        FirstPayQuestion question,
        PaidComponents components,
        IReadOnlyList<PayRun> runs,
        PayWording? wording = null,
        IReadOnlyDictionary<string, IReadOnlyList<AmountFrom>>? later = null
    )
    {
        var words = wording ?? PayWording.English;
        var own = new Dictionary<string, FirstPayQuestion>(StringComparer.Ordinal) { [components.Base] = question };
        foreach (var (code, amount) in components.Own)
            own[code] = question with { AmountPerPeriod = amount, Later = later?.GetValueOrDefault(code) ?? [] };
        var periods = new List<(PayPreview Slip, Dictionary<string, PeriodPay> Own)>();
        foreach (var run in runs)
        {
            var paid = new Dictionary<string, PeriodPay>(StringComparer.Ordinal);
            foreach (var (code, stated) in own)
            {
                var period = PeriodPay.Of(stated, run, words);
                if (period.Answer is null)
                    return Result<Payslip>.Failed(period.Problems);
                paid[code] = period.Answer;
            }
            var slip = components.Period(question.Terms.Every, paid.ToDictionary(p => p.Key, p => p.Value.Amount, StringComparer.Ordinal), words);
            if (slip.Answer is null)
                return Result<Payslip>.Failed(slip.Problems);
            periods.Add((slip.Answer, paid));
        }
        return new Payslip(
            [
                .. components.Components.Select(
                    (c, at) =>
                        new PayslipLine(
                            c.Code,
                            c.Kind,
                            periods.Sum(p => p.Slip.Lines[at].Amount),
                            [.. periods.Select(p => p.Own.TryGetValue(c.Code, out var paid) ? paid.Working : p.Slip.Lines[at].Working)]
                        )
                ),
            ],
            periods.Sum(p => p.Slip.Gross),
            periods.Sum(p => p.Slip.Deductions),
            periods.Sum(p => p.Slip.Net),
            periods.Sum(p => p.Slip.EmployerCost)
        );
    }
}

/// <summary>A line of what a run pays.</summary>
/// <param name="Code">The component's code.</param>
/// <param name="Amount">What it comes to over all periods paid; not negative for what is taken off.</param>
/// <param name="Working">For each period, in order, how it was worked out in sentences.</param>
public sealed record PayslipLine(string Code, ComponentKind Kind, decimal Amount, IReadOnlyList<string> Working);

/// <summary>The components that make up somebody's pay.</summary>
/// <param name="Base">The code of the one that stands for their base pay.</param>
/// <param name="Own">What their own record states for a whole period, by the code of the component it stands for; not the base pay.</param>
/// <param name="Components">All of them, each once: those that read others stand with what they read.</param>
public sealed record PaidComponents(string Base, IReadOnlyDictionary<string, decimal> Own, IReadOnlyList<PayComponent> Components)
{
    /// <summary>What a whole period comes to.</summary>
    /// <param name="every">The pay period.</param>
    /// <param name="amount">The base pay of it.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    public Result<PayPreview> Whole(PayPeriod every, decimal amount, PayWording? wording = null) =>
        Period(every, new Dictionary<string, decimal>(Own, StringComparer.Ordinal) { [Base] = amount }, wording);

    // A period in which some components come to what is given, by their codes.
    internal Result<PayPreview> Period(PayPeriod every, IReadOnlyDictionary<string, decimal> amounts, PayWording? wording) =>
        PayPreview.Of(every, [.. Components.Select(c => amounts.TryGetValue(c.Code, out var amount) ? PayComponent.Fixed(c, amount) : c)], wording);
}
