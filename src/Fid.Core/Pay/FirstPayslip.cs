namespace Fid.Core.Pay;

/// <summary>What the first run pays somebody new, line by line, down to what reaches the bank.</summary>
/// <param name="Pay">When it is paid, and what of the base pay.</param>
/// <param name="Lines">A line for each component: what it comes to over all periods that the run pays.</param>
/// <param name="Gross">All earnings.</param>
/// <param name="Deductions">All deductions.</param>
/// <param name="Net">Gross less deductions.</param>
/// <param name="EmployerCost">Gross and what the employer pays beside it.</param>
public sealed record FirstPayslip(FirstPay Pay, IReadOnlyList<FirstPayslipLine> Lines, decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost)
{
    /// <summary>
    /// Works it out. Each period is a slip of its own, arrears too, so that floors, caps and brackets hold for each; the lines are their sums. What
    /// the person's own record states for a period is paid in part where the period is, like the base pay.
    /// </summary>
    /// <param name="question">Whose pay it is; its amount is the base pay of a whole period.</param>
    /// <param name="slip">The components that hold.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    /// <returns>Problems as <see cref="FirstPay.Of"/> and <see cref="PayPreview.Of"/> name them.</returns>
    public static Result<FirstPayslip> Of(FirstPayQuestion question, PaidComponents slip, PayWording? wording = null)
    {
        var first = FirstPay.Of(question, wording);
        if (first.Answer is not { } pay)
            return Result<FirstPayslip>.Failed(first.Problems);
        var own = new Dictionary<string, IReadOnlyList<FirstPayLine>>(StringComparer.Ordinal) { [slip.Base] = pay.Lines };
        foreach (var (code, amount) in slip.Own)
        {
            var part = FirstPay.Of(question with { AmountPerPeriod = amount }, wording);
            if (part.Answer is null)
                return Result<FirstPayslip>.Failed(part.Problems);
            own[code] = part.Answer.Lines;
        }
        var periods = new List<PayPreview>();
        for (var i = 0; i < pay.Lines.Count; i++)
        {
            var preview = slip.Period(question.Terms.Every, own.ToDictionary(o => o.Key, o => o.Value[i].Amount, StringComparer.Ordinal), wording);
            if (preview.Answer is null)
                return Result<FirstPayslip>.Failed(preview.Problems);
            periods.Add(preview.Answer);
        }
        return new FirstPayslip(
            pay,
            [
                .. slip.Components.Select(
                    (c, at) =>
                        new FirstPayslipLine(
                            c.Code,
                            c.Kind,
                            periods.Sum(p => p.Lines[at].Amount),
                            [.. periods.Select((p, i) => own.TryGetValue(c.Code, out var lines) ? lines[i].Working : p.Lines[at].Working)]
                        )
                ),
            ],
            periods.Sum(p => p.Gross),
            periods.Sum(p => p.Deductions),
            periods.Sum(p => p.Net),
            periods.Sum(p => p.EmployerCost)
        );
    }
}

/// <summary>A line of the first pay.</summary>
/// <param name="Code">The component's code.</param>
/// <param name="Amount">What it comes to over all periods paid; not negative for what is taken off.</param>
/// <param name="Working">For each period, in order, a sentence that shows how it was worked out.</param>
public sealed record FirstPayslipLine(string Code, ComponentKind Kind, decimal Amount, IReadOnlyList<string> Working);

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
