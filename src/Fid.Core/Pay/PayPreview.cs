namespace Fid.Core.Pay;

/// <summary>What a pay period comes to.</summary>
/// <param name="Lines">A line for each component, in the order they were given.</param>
/// <param name="Gross">All earnings.</param>
/// <param name="Deductions">All deductions.</param>
/// <param name="Net">Gross less deductions.</param>
/// <param name="EmployerCost">Gross and what the employer pays beside it.</param>
public sealed record PayPreview(IReadOnlyList<PayLine> Lines, decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost)
{
    /// <summary>The most components that can be worked out together.</summary>
    public const int Most = 1000;

    /// <summary>The components as people read them: what is earned, what is taken off, what the employer pays beside; of each kind those first that
    /// others are worked out from. As given where they cannot be worked out.</summary>
    public static IReadOnlyList<PayComponent> InReadingOrder(IReadOnlyList<PayComponent> components) =>
        PayNetwork.Of(components).Answer is { } network ? [.. network.Order.Select(at => components[at]).OrderBy(c => c.Kind)] : components;

    /// <summary>
    /// Works a period out, each component after those it reads, whatever order they stand in. A line is rounded to the currency's
    /// minor unit; totals are sums of rounded lines. Problems name the component by its place: "/components/3/of/0".
    /// </summary>
    /// <param name="every">The pay period, from a week to a year; brackets for a year need it.</param>
    /// <param name="components">The components. Codes differ.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    public static Result<PayPreview> Of(PayPeriod every, IReadOnlyList<PayComponent> components, PayWording? wording = null)
    {
        if (every is PayPeriod.Hour or PayPeriod.Day)
            return Result<PayPreview>.Failed(
                new Problem("/every", "bad-value", "People are paid by the week, fortnight, four weeks, half month, month or year.")
            );
        var network = PayNetwork.Of(components);
        if (network.Answer is not { } found)
            return Result<PayPreview>.Failed(network.Problems);

        var problems = new List<Problem>();
        var working = new PayWorking(every, components, wording ?? PayWording.English);
        foreach (var at in found.Order)
        {
            var trouble = working.Work(components[at], found.Formulas[at]);
            if (trouble is not null)
                problems.Add(new Problem($"/components/{at}", "formula-error", $"{components[at].Code}: {trouble}"));
        }
        if (problems.Count > 0)
            return Result<PayPreview>.Failed(problems);

        decimal Total(ComponentKind kind) => Money.Round(components.Where(c => c.Kind == kind).Sum(c => working.Lines[c.Code].Amount));
        decimal gross = Total(ComponentKind.Earning),
            deductions = Total(ComponentKind.Deduction);
        return new PayPreview(
            [.. components.Select(c => working.Lines[c.Code])],
            gross,
            deductions,
            gross - deductions,
            gross + Total(ComponentKind.EmployerCost)
        );
    }
}

/// <summary>A line of pay.</summary>
/// <param name="Code">The component's code.</param>
/// <param name="Amount">What it comes to, never negative for what is taken off: a deduction of 53 is 53.</param>
/// <param name="Working">A sentence that shows how it was worked out, in the words asked for.</param>
public sealed record PayLine(string Code, decimal Amount, string Working);
