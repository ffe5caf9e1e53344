using System.Globalization;
using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using Fid.Data;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>What a run pays a stint, what is new of it, and what stands against it.</summary>
internal sealed class PayRunRule(PayReading pay, LocalDate today, PayRunFacts facts)
{
    private static readonly string[] NoTransfer = ["cheque", "cash"];

    /// <summary>The line of a stint; null where nothing of its pay is new in the run.</summary>
    public PayRunLine? Line(PaidStint stint, CheckedRun checkedRun)
    {
        var (run, employment) = (checkedRun.Run, stint.Employment);
        var asOf = LocalDate.Max(employment.Start, employment.End is { } end ? LocalDate.Min(end, run.End) : run.End);
        var values = stint.On(asOf);
        var paid = Question(stint, checkedRun, values);
        var first = facts.Templates.Newcomers.Contains(employment.Id) && paid is not null ? FirstPay.Of(paid).Answer : null;
        var periods = PaidBy(run);
        var elements = stint.HasRowsOf(PayElementRows.Field)
            ? PaidElement.Over(employment.Start, stint.DaysOfChange(PayReading.AllFields), day => pay.Beside(stint.On(day)))
            : [];
        PayNews[] news = [.. News(stint, run, periods), .. elements.SelectMany(e => News(e, employment, checkedRun))];
        if (news.Length == 0)
            return null;
        var slip = Slip(periods);
        // A newcomer who is not paid with this run is told with the one that pays them.
        var missed = periods.Count == 0 && employment.Start <= run.End && first is { } pays && run.Start < pays.PaidWith.Start ? pays.PaidWith : null;
        var check = facts.Checks[employment.Id].SingleOrDefault(c => c.PayGroup == checkedRun.Group.Code && c.Period == run.Start);
        PayFinding[] findings = [.. Findings(stint, values, run, periods, slip, missed, paid).OrderBy(f => f.Kind)];
        return new PayRunLine(
            checkedRun,
            employment,
            stint.Record,
            news,
            findings,
            periods,
            slip,
            checkedRun.Last is { } last ? Slip(PaidBy(last)) : null,
            values,
            stint.Row("pay_rate", asOf) is { Source: "typed" } typed ? facts.RateChanges.GetValueOrDefault(typed.ChangeId) : null,
            Facts(stint, values, asOf, periods, slip),
            check
        );

        // Those who came before Fid knew them, or have settled, are paid since their first day.
        IReadOnlyList<PayRun> PaidBy(PayRun by) =>
            employment.Start > by.End || employment.End < by.Start ? []
            : first is not null ? first.PaidBy(by)
            : [by];

        Payslip? Slip(IReadOnlyList<PayRun> runs)
        {
            if (paid is null || runs.Count == 0 || pay.Rate(values) is null)
                return null;
            return pay.Components(checkedRun.Group, elements, runs[^1].End) is { } components
                ? Payslip.Of(paid, components, runs, PayWording.In(ReaderLanguage.Code)).Answer
                : null;
        }
    }

    private FirstPayQuestion? Question(PaidStint stint, CheckedRun run, Dictionary<string, JsonElement?> values)
    {
        var amounts = stint.Amounts(PayReading.Fields, PerPeriod);
        var question = pay.First(
            // The run is that of one group, whichever others they were in.
            new Dictionary<string, JsonElement?>(values, StringComparer.Ordinal) { ["pay_group"] = JsonSerializer.SerializeToElement(run.Group.Code) },
            values.Text("shift_pattern") is { } pattern ? facts.Patterns.GetValueOrDefault(pattern) : null,
            stint.Employment.Start,
            Approved(stint),
            run.Run.End
        );
        return question is null ? null : question with { AmountPerPeriod = amounts[0].Amount, Later = [.. amounts.Skip(1)], End = stint.Employment.End };

        decimal PerPeriod(IReadOnlyDictionary<string, JsonElement?> then) => pay.Group(then)?.Code == run.Group.Code ? pay.Rate(then)?.PerPeriod ?? 0 : 0;
    }

    private LocalDate Approved(PaidStint stint) =>
        facts.KnownSince.TryGetValue(stint.Employment.Id, out var since) ? LocalDate.Min(today, since.InZone(pay.Firm.Zone).Date) : today;

    private static IEnumerable<PayNews> News(PaidStint stint, PayRun run, IReadOnlyList<PayRun> periods)
    {
        var employment = stint.Employment;
        if (employment.Start >= run.Start)
            yield return new PayNews(PayNewsKind.Starts, employment.Start, null, null);
        else if (periods.Count != 1)
            yield return new PayNews(PayNewsKind.Arrears, employment.Start, null, null);
        foreach (var (kind, fields) in Kinds)
        foreach (var day in stint.DaysOfChange(fields).Where(d => run.Start <= d && d <= run.End && !(d > employment.End)))
        {
            var (before, after) = (stint.On(day.PlusDays(-1)), stint.On(day));
            if (fields.Any(f => Written(before.GetValueOrDefault(f)) != Written(after.GetValueOrDefault(f))))
                yield return new PayNews(kind, day, before.Number(fields[0]), after.Number(fields[0]));
        }
        if (employment.End is { } end && run.Start <= end && end <= run.End)
            yield return new PayNews(PayNewsKind.Ends, end, null, null);
    }

    // What begins, changes or ends of what is paid beside base pay; with the first day it is no news of its own.
    private static IEnumerable<PayNews> News(PaidElement element, Employment employment, CheckedRun checkedRun)
    {
        var (run, every, kind) = (checkedRun.Run, PayGroupEntry.Every(checkedRun.Group), PayNews.Of(element.Element.Kind));
        if (element.Due is { } due && run.Start <= due && due <= run.End)
            yield return new PayNews(kind, due, null, element.Element.Amount);
        foreach (var (before, after) in element.Steps.Zip(element.Steps.Skip(1)))
            if (run.Start <= after.From && after.From <= run.End && !(after.From > employment.End) && before.PerPeriod(every) != after.PerPeriod(every))
                yield return new PayNews(kind, after.From, before.PerPeriod(every), after.PerPeriod(every));
    }

    private static readonly (PayNewsKind Kind, string[] Fields)[] Kinds =
    [
        (PayNewsKind.Group, ["pay_group"]),
        (PayNewsKind.Rate, ["pay_rate", "paid_by"]),
        (PayNewsKind.Hours, ["weekly_hours"]),
    ];

    private IEnumerable<PayFinding> Findings(
        PaidStint stint,
        Dictionary<string, JsonElement?> values,
        PayRun run,
        IReadOnlyList<PayRun> periods,
        Payslip? slip,
        PayRun? missed,
        FirstPayQuestion? paid
    )
    {
        // What another run pays is for that one to be put right.
        if (stint.Employment.Start > run.End)
        {
            yield return new PayFinding(PayFindingKind.StartsAfterPeriod);
            yield break;
        }
        if (slip is null && (periods.Count > 0 || pay.Rate(values) is null))
            yield return new PayFinding(PayFindingKind.NotWorkedOut);
        if (!values.ContainsKey("bank_account") && !NoTransfer.Contains(values.Text("payment_method")))
            yield return new PayFinding(PayFindingKind.NoBankAccount);
        if (missed is not null)
            yield return new PayFinding(PayFindingKind.CutOffMissed, missed, Period.DaysBetween(run.CutOff, paid!.ApprovedOn));
        if (slip?.Net < 0)
            yield return new PayFinding(PayFindingKind.NegativeNet, Number: slip.Net);
        if (facts.Waiting.Contains(stint.Employment.Id))
            yield return new PayFinding(PayFindingKind.ChangeWaits);
        if (OutsideBand(values, run.End) is { } outside)
            yield return new PayFinding(PayFindingKind.OutsideBand, Number: outside);
        if (facts.Templates.Of(stint.Employment.Id, values.Text("paid_by")) is { } says && says != values.Number("pay_rate"))
            yield return new PayFinding(PayFindingKind.UnlikeTemplate, Number: says);
    }

    private decimal? OutsideBand(Dictionary<string, JsonElement?> values, LocalDate day) =>
        pay.Rate(values)?.FullTimeAnnual is { } annual && facts.Bands.Of(values.Text("job"), day) is { } band
            ? PayBand.Outside(annual, band.Min, band.Max)
            : null;

    private static Dictionary<string, string> Facts(
        PaidStint stint,
        Dictionary<string, JsonElement?> values,
        LocalDate asOf,
        IReadOnlyList<PayRun> periods,
        Payslip? slip
    )
    {
        var seen = new Dictionary<string, string?>
        {
            ["start"] = stint.Employment.Start.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture),
            ["end"] = stint.Employment.End?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture),
            ["periods"] = string.Join(' ', periods.Select(p => p.Start.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture))),
            ["gross"] = Plain(slip?.Gross),
            ["net"] = Plain(slip?.Net),
            ["employerCost"] = Plain(slip?.EmployerCost),
            // Of an account only whether it is another one.
            ["bank_account"] = stint.Row("bank_account", asOf) is { } account ? account.SealedStart ?? Written(account.Value) : null,
        };
        foreach (var field in (string[])[.. PayReading.Fields, "hours_arise", "payment_method", "department", "cost_centre"])
            seen[field] = Written(values.GetValueOrDefault(field));
        foreach (var rows in (string[])[PayElementRows.Field, CostSplitRows.Field])
            seen[rows] = Rows(values, rows);
        return seen.Where(s => s.Value is not null).ToDictionary(s => s.Key, s => s.Value!, StringComparer.Ordinal);
    }

    // All cells of a field's rows, in an order of their own.
    private static string? Rows(Dictionary<string, JsonElement?> values, string field) =>
        string.Join(' ', values.RowsOf(field).OrderBy(v => v.Key, StringComparer.Ordinal).Select(v => $"{v.Key} {Written(v.Value)}")) is { Length: > 0 } text
            ? text
            : null;

    // Numbers that are equal are written alike: 17.4 and 17.40.
    private static string? Written(JsonElement? value) =>
        value switch
        {
            null => null,
            { ValueKind: JsonValueKind.Number } number => Plain(number.GetDecimal()),
            { } other => other.ToString(),
        };

    private static string? Plain(decimal? number) => number?.ToString("0.####", CultureInfo.InvariantCulture);
}
