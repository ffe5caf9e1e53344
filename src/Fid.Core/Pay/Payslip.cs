using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What a run pays somebody, line by line, down to what reaches the bank.</summary>
/// <param name="Lines">A line for each component: what it comes to over all periods that the run pays.</param>
/// <param name="Gross">All earnings.</param>
/// <param name="Deductions">All deductions.</param>
/// <param name="Net">Gross less deductions.</param>
/// <param name="EmployerCost">Gross and what the employer pays beside it.</param>
public sealed record Payslip(IReadOnlyList<PayslipLine> Lines, decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost)
{
    /// <summary>What is paid beside base pay by the record itself: each element that comes to something, over all periods.</summary>
    public IReadOnlyList<(PayElement Element, decimal Amount)> Elements { get; private init; } = [];

    /// <summary>
    /// Works it out. Each period is a slip of its own, arrears too, so that floors, caps and brackets hold for each; the lines are their sums. What
    /// the person's own record states beside base pay is paid in part where the period is, or on the days on which it holds.
    /// </summary>
    /// <param name="question">Whose pay it is; its amounts are the base pay of a whole period.</param>
    /// <param name="components">Those that hold, with what the record states.</param>
    /// <param name="runs">The periods that are paid; each one on a day of which they work.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    /// <returns>Problems of single periods as <see cref="FirstPay.Of"/> names them, and those of <see cref="PayPreview.Of"/>.</returns>
    public static Result<Payslip> Of(FirstPayQuestion question, PaidComponents components, IReadOnlyList<PayRun> runs, PayWording? wording = null)
    {
        var words = wording ?? PayWording.English;
        var periods = new List<(PayPreview Slip, Dictionary<string, ElementPay> Own)>();
        var elements = new List<(PayElement Element, decimal Amount)>();
        foreach (var run in runs)
        {
            var based = PeriodPay.Of(question, run, words);
            if (based.Answer is null)
                return Result<Payslip>.Failed(based.Problems);
            var paid = new Dictionary<string, ElementPay>(StringComparer.Ordinal) { [components.Base] = new(based.Answer.Amount, based.Answer.Working) };
            foreach (var (code, element) in components.Own)
            {
                if (element.Of(question, run, words) is var of && of.Answer is null)
                    return Result<Payslip>.Failed(of.Problems);
                if (of.Answer.Amount == 0)
                    continue;
                elements.Add((element.Element, of.Answer.Amount));
                paid[code] = paid.TryGetValue(code, out var other)
                    ? new ElementPay(other.Amount + of.Answer.Amount, $"{other.Working} {of.Answer.Working}")
                    : of.Answer;
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
        )
        {
            Elements = [.. elements.GroupBy(e => e.Element.Id).Select(e => (e.First().Element, e.Sum(p => p.Amount)))],
        };
    }
}

/// <summary>A line of what a run pays.</summary>
/// <param name="Code">The component's code.</param>
/// <param name="Amount">What it comes to over all periods paid; not negative for what is taken off.</param>
/// <param name="Working">For each period, in order, how it was worked out in sentences.</param>
public sealed record PayslipLine(string Code, ComponentKind Kind, decimal Amount, IReadOnlyList<string> Working);

/// <summary>The components that make up somebody's pay.</summary>
/// <param name="Base">The code of the one that stands for their base pay.</param>
/// <param name="Own">What their own record states beside it, with the code of the component by which it is paid; several may be paid by one.</param>
/// <param name="Components">All of them, each once: those that read others stand with what they read. What records state is nothing in them.</param>
public sealed record PaidComponents(string Base, IReadOnlyList<(string Code, PaidElement Element)> Own, IReadOnlyList<PayComponent> Components)
{
    /// <summary>What a whole period comes to by what holds on a day, one-off payments left out.</summary>
    /// <param name="every">The pay period.</param>
    /// <param name="amount">The base pay of it.</param>
    /// <param name="day">The day.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    public Result<PayPreview> Whole(PayPeriod every, decimal amount, LocalDate day, PayWording? wording = null)
    {
        var amounts = new Dictionary<string, decimal>(StringComparer.Ordinal) { [Base] = amount };
        foreach (var (code, element) in Own)
            amounts[code] = amounts.GetValueOrDefault(code) + (element.On(day)?.PerPeriod(every) ?? 0);
        return Period(every, amounts, wording);
    }

    // A period in which some components come to what is given, by their codes.
    internal Result<PayPreview> Period(PayPeriod every, IReadOnlyDictionary<string, decimal> amounts, PayWording? wording) =>
        PayPreview.Of(every, [.. Components.Select(c => amounts.TryGetValue(c.Code, out var amount) ? PayComponent.Fixed(c, amount) : c)], wording);
}
