using Fid.Core.Formulas;

namespace Fid.Core.Pay;

/// <summary>Works components out one by one, each after those it reads.</summary>
internal sealed class PayWorking(PayPeriod every, IReadOnlyList<PayComponent> components, PayWording wording)
{
    private readonly Dictionary<string, PayLine> _lines = new(StringComparer.Ordinal);
    private readonly HashSet<string> _deductions = components
        .Where(c => c.Kind == ComponentKind.Deduction)
        .Select(c => c.Code)
        .ToHashSet(StringComparer.Ordinal);

    /// <summary>What has been worked out, by code.</summary>
    public IReadOnlyDictionary<string, PayLine> Lines => _lines;

    /// <summary>Works one out. What it reads has been.</summary>
    /// <returns>Why it cannot be worked out, in words; null where it was.</returns>
    public string? Work(PayComponent component, NumberFormula? formula)
    {
        if (component.Amount is { } amount)
            return Put(component, amount, $"{wording.Fixed} {Text(amount)}.");
        if (formula is not null)
            return Compute(component, formula);

        var (whole, wholeText) = Base(component);
        var counted = Math.Max(Math.Min(whole, component.Cap ?? whole) - (component.Floor ?? 0), 0);
        var limits = (component.Cap is { } cap ? $" {wording.UpTo} {Text(cap)}" : "") + (component.Floor is { } floor ? $" {wording.Above} {Text(floor)}" : "");
        if (component.Percent is { } percent)
        {
            var part = counted * percent / 100;
            return Put(component, part, $"{Share(percent)} {wholeText}{limits}: {Share(percent)} {Text(counted)} = {Text(part)}.");
        }

        var times = component.Basis == BracketBasis.Annual ? PayRate.PeriodsPerYear(every) : 1;
        var (sliced, slices) = Slice(counted * times, component.Brackets!);
        var basis = times == 1 ? "" : $" × {wording.Plain(times)} = {Text(counted * times)} {wording.AYear}";
        var back = times == 1 ? "" : $" = {Text(sliced)} {wording.AYear}, ÷ {wording.Plain(times)}";
        return Put(component, sliced / times, $"{wording.On} {wholeText}{limits}{basis}: {slices}{back} = {Text(sliced / times)}.");
    }

    private string? Put(PayComponent component, decimal amount, string working)
    {
        _lines[component.Code] = new PayLine(component.Code, Money.Round(amount), working);
        return null;
    }

    private string? Compute(PayComponent component, NumberFormula formula)
    {
        var (value, wrong) = formula.Compute(name => _lines[name].Amount);
        var trouble = wrong ?? (Math.Abs(value) > Money.Most ? "It comes to a number that is too large." : null);
        if (trouble is not null)
        {
            // Those that read it are looked at still, so that all problems are told at once.
            Put(component, 0, "");
            return trouble;
        }
        var read = string.Join(", ", formula.Names.Select(n => $"{n} = {Text(_lines[n].Amount)}"));
        return Put(component, value, $"{component.Formula}{(read.Length > 0 ? $" {wording.With} {read}" : "")} = {Text(value)}.");
    }

    private (decimal Base, string Text) Base(PayComponent component)
    {
        decimal sum = 0;
        var text = "";
        foreach (var code in component.Of!)
        {
            var takenOff = _deductions.Contains(code);
            sum += takenOff ? -_lines[code].Amount : _lines[code].Amount;
            text += text.Length == 0 ? (takenOff ? $"−{code}" : code) : $" {(takenOff ? '−' : '+')} {code}";
        }
        return (sum, $"{text} ({Text(sum)})");
    }

    private (decimal Sum, string Text) Slice(decimal amount, IReadOnlyList<PayBracket> brackets)
    {
        decimal sum = 0,
            from = 0;
        var parts = new List<string>();
        foreach (var bracket in brackets)
        {
            var part = Math.Min(amount, bracket.UpTo ?? amount) - from;
            if (part <= 0)
                break;
            sum += part * bracket.Percent / 100;
            parts.Add($"{Share(bracket.Percent)} {Text(part)}");
            from += part;
        }
        return (sum, parts.Count == 0 ? wording.Nothing : string.Join(" + ", parts));
    }

    private string Share(decimal percent) => $"{wording.Plain(percent)} % {wording.Of}";

    private string Text(decimal amount) => wording.Amount(amount);
}
