using NodaTime;

namespace Fid.Core.Pay;

/// <summary>An element of somebody's pay over time.</summary>
/// <param name="Steps">What it is from each day on which it, or the main rate, becomes another; in the order of days, the first on the first day of
/// work. At least one.</param>
public sealed record PaidElement(IReadOnlyList<ElementFrom> Steps)
{
    /// <summary>What it is; that it is the last to change.</summary>
    public PayElement Element => Steps.Last(s => s.Element is not null).Element!;

    /// <summary>
    /// Reads the elements of somebody over time.
    /// </summary>
    /// <param name="start">Their first day.</param>
    /// <param name="days">Later days on which a record says something else, in any order; the days that elements themselves name are found.</param>
    /// <param name="on">What the record says on a day: the elements, and what an hour of the main job pays.</param>
    public static IReadOnlyList<PaidElement> Over(
        LocalDate start,
        IEnumerable<LocalDate> days,
        Func<LocalDate, (IReadOnlyList<PayElement> Elements, decimal MainRate)> on
    )
    {
        var said = new SortedDictionary<LocalDate, (IReadOnlyList<PayElement> Elements, decimal MainRate)> { [start] = on(start) };
        foreach (var day in days.Where(d => d > start))
            said.TryAdd(day, on(day));
        var named = said.Values.SelectMany(s => s.Elements).SelectMany(e => new[] { e.From, e.Until?.PlusDays(1) }).OfType<LocalDate>().Distinct();
        foreach (var day in named.Where(d => d > start && !said.ContainsKey(d)).ToList())
            said[day] = on(day);
        return
        [
            .. said
                .Values.SelectMany(s => s.Elements.Select(e => e.Id))
                .Distinct()
                .Select(id => new PaidElement([
                    .. said.Select(s => new ElementFrom(s.Key, s.Value.Elements.FirstOrDefault(e => e.Id == id), s.Value.MainRate)),
                ])),
        ];
    }

    /// <summary>The day on which a one-off payment is due; null for others, and where it was taken away before.</summary>
    public LocalDate? Due => Element.Due is { } due && (Steps.LastOrDefault(s => s.From <= due) ?? Steps[0]).Element is not null ? due : null;

    /// <summary>What a whole period pays from each day on; the first is the first day of work.</summary>
    /// <param name="every">The pay period.</param>
    public IReadOnlyList<AmountFrom> Amounts(PayPeriod every)
    {
        var amounts = new List<AmountFrom>();
        foreach (var step in Steps)
            if (new AmountFrom(step.From, step.PerPeriod(every)) is var next && (amounts.Count == 0 || amounts[^1].Amount != next.Amount))
                amounts.Add(next);
        return amounts;
    }

    /// <summary>What it is on a day; null where nothing is paid for it.</summary>
    public ElementFrom? On(LocalDate day) => Steps.LastOrDefault(s => s.From <= day) is { Element: { } element } step && element.HoldsOn(day) ? step : null;

    /// <summary>What a run pays of it for a period, with how it was worked out.</summary>
    /// <param name="question">Whose pay it is.</param>
    /// <param name="run">The period; one on a day of which they work.</param>
    /// <param name="wording">In whose words the working is shown.</param>
    internal Result<ElementPay> Of(FirstPayQuestion question, PayRun run, PayWording wording)
    {
        var (element, every) = (Element, question.Terms.Every);
        if (element.Kind == PayElementKind.OneOff)
            return Due is { } due && IsDueIn(question, run, due)
                ? new ElementPay(Money.Round(element.Amount), Named(wording.Once(element.Amount)))
                : ElementPay.Nothing;
        var amounts = Amounts(every);
        if (amounts.All(a => a.Amount == 0))
            return ElementPay.Nothing;
        // The roster is that of the main job.
        var method = element.Kind == PayElementKind.SecondJob && question.Method == PartMethod.RosteredHours ? PartMethod.WorkingDays : question.Method;
        var paid = PeriodPay.Of(question with { AmountPerPeriod = amounts[0].Amount, Later = [.. amounts.Skip(1)], Method = method }, run, wording);
        if (paid.Answer is not { } period)
            return Result<ElementPay>.Failed(paid.Problems);
        if (period.Amount == 0)
            return ElementPay.Nothing;
        var last = Steps.Last(s => s.From <= run.End && s.PerPeriod(every) != 0);
        var rate = last.Element!.HourlyOn(last.From, last.MainRate) is { } hour
            ? $"{wording.SecondJob(last.Element.WeeklyHours, hour, PayRate.PeriodsPerYear(every), last.PerPeriod(every))} "
            : "";
        return new ElementPay(period.Amount, Named(rate + period.Working));
    }

    // Due before somebody works it is paid with their first period, and due after they do with their last.
    private static bool IsDueIn(FirstPayQuestion question, PayRun run, LocalDate due)
    {
        var day = LocalDate.Max(due, question.Start);
        if (question.End is { } end && day > end)
            day = end;
        return run.Start <= day && day <= run.End;
    }

    private string Named(string working) => Element.Note is { } note ? $"{note}: {working}" : working;
}

/// <summary>What an element of pay is from a day on.</summary>
/// <param name="Element">Null where there is none.</param>
/// <param name="MainRate">What an hour of the main job pays from then on.</param>
public sealed record ElementFrom(LocalDate From, PayElement? Element, decimal MainRate)
{
    /// <summary>What a whole period pays, to the minor unit.</summary>
    /// <param name="every">The pay period.</param>
    public decimal PerPeriod(PayPeriod every) => Element?.PerPeriod(From, MainRate, every) ?? 0;
}

/// <summary>What a run pays of an element for a period.</summary>
/// <param name="Working">How it was worked out, in sentences; nothing where it pays nothing.</param>
internal sealed record ElementPay(decimal Amount, string Working)
{
    public static ElementPay Nothing { get; } = new(0, "");
}
