using System.Globalization;
using Fid.Core.Formulas;

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

    /// <summary>
    /// Works a period out, each component after those it reads, whatever order they stand in. A line is rounded to the currency's
    /// minor unit; totals are sums of rounded lines. Problems name the component by its place: "/components/3/of/0".
    /// </summary>
    /// <param name="every">The pay period, from a week to a year; brackets for a year need it.</param>
    /// <param name="components">The components. Codes differ.</param>
    public static Outcome<PayPreview> Of(PayPeriod every, IReadOnlyList<PayComponent> components)
    {
        if (every is PayPeriod.Hour or PayPeriod.Day)
            return Outcome<PayPreview>.Failed(new Problem("/every", "bad-value", "People are paid by the week, fortnight, four weeks, half month, month or year."));
        var network = PayNetwork.Of(components);
        if (network.Answer is not { } found) return Outcome<PayPreview>.Failed(network.Problems);

        var problems = new List<Problem>();
        var lines = new Dictionary<string, PayLine>(StringComparer.Ordinal);
        foreach (var at in found.Order)
        {
            var line = Work(components[at], found.Formulas[at], every, components, lines, out var trouble);
            if (trouble is not null) problems.Add(new Problem($"/components/{at}", "formula-error", $"{components[at].Code}: {trouble}"));
            lines[components[at].Code] = line;
        }
        if (problems.Count > 0) return Outcome<PayPreview>.Failed(problems);

        decimal Total(ComponentKind kind) => Money.Round(components.Where(c => c.Kind == kind).Sum(c => lines[c.Code].Amount));
        decimal gross = Total(ComponentKind.Earning), deductions = Total(ComponentKind.Deduction);
        return new PayPreview([.. components.Select(c => lines[c.Code])], gross, deductions, gross - deductions, gross + Total(ComponentKind.EmployerCost));
    }

    private static PayLine Work(
        PayComponent component, NumberFormula? formula, PayPeriod every, IReadOnlyList<PayComponent> all, Dictionary<string, PayLine> lines, out string? trouble)
    {
        trouble = null;
        if (component.Amount is { } amount) return new PayLine(component.Code, Money.Round(amount), $"A fixed amount of {Text(amount)}.");
        if (formula is not null)
        {
            var (value, wrong) = formula.Compute(name => lines[name].Amount);
            trouble = wrong ?? (Math.Abs(value) > Money.Most ? "It comes to a number that is too large." : null);
            if (trouble is not null) return new PayLine(component.Code, 0, "");
            var read = string.Join(", ", formula.Names.Select(n => $"{n} = {Text(lines[n].Amount)}"));
            return new PayLine(component.Code, Money.Round(value), $"{component.Formula}{(read.Length > 0 ? $" with {read}" : "")} = {Text(value)}.");
        }

        var (whole, wholeText) = Base(component, all, lines);
        var counted = Math.Max(Math.Min(whole, component.Cap ?? whole) - (component.Floor ?? 0), 0);
        var limits = (component.Cap is { } cap ? $" up to {Text(cap)}" : "") + (component.Floor is { } floor ? $" above {Text(floor)}" : "");
        if (component.Percent is { } percent)
            return new PayLine(component.Code, Money.Round(counted * percent / 100), $"{Plain(percent)} % of {wholeText}{limits}: {Plain(percent)} % of {Text(counted)} = {Text(counted * percent / 100)}.");

        var times = component.Basis == BracketBasis.Annual ? PayRate.PeriodsPerYear(every) : 1;
        var (sliced, slices) = Slice(counted * times, component.Brackets!);
        var basis = times == 1 ? "" : $" × {Plain(times)} = {Text(counted * times)} a year";
        var back = times == 1 ? "" : $" = {Text(sliced)} a year, ÷ {Plain(times)}";
        return new PayLine(component.Code, Money.Round(sliced / times), $"On {wholeText}{limits}{basis}: {slices}{back} = {Text(sliced / times)}.");
    }

    private static (decimal Base, string Text) Base(PayComponent component, IReadOnlyList<PayComponent> all, Dictionary<string, PayLine> lines)
    {
        var deductions = all.Where(c => c.Kind == ComponentKind.Deduction).Select(c => c.Code).ToHashSet(StringComparer.Ordinal);
        decimal sum = 0;
        var text = "";
        foreach (var code in component.Of!)
        {
            var takenOff = deductions.Contains(code);
            sum += takenOff ? -lines[code].Amount : lines[code].Amount;
            text += text.Length == 0 ? (takenOff ? $"−{code}" : code) : $" {(takenOff ? '−' : '+')} {code}";
        }
        return (sum, $"{text} ({Text(sum)})");
    }

    private static (decimal Sum, string Text) Slice(decimal amount, IReadOnlyList<PayBracket> brackets)
    {
        decimal sum = 0, from = 0;
        var parts = new List<string>();
        foreach (var bracket in brackets)
        {
            var part = Math.Min(amount, bracket.UpTo ?? amount) - from;
            if (part <= 0) break;
            sum += part * bracket.Percent / 100;
            parts.Add($"{Plain(bracket.Percent)} % of {Text(part)}");
            from += part;
        }
        return (sum, parts.Count == 0 ? "nothing" : string.Join(" + ", parts));
    }

    private static string Text(decimal amount) => Money.Round(amount).ToString(CultureInfo.InvariantCulture);

    private static string Plain(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);
}

/// <summary>A line of pay.</summary>
/// <param name="Code">The component's code.</param>
/// <param name="Amount">What it comes to, never negative for what is taken off: a deduction of 53 is 53.</param>
/// <param name="Working">A sentence that shows how it was worked out.</param>
public sealed record PayLine(string Code, decimal Amount, string Working);
