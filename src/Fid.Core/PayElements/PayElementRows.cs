using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Pay;

namespace Fid.Core.PayElements;

/// <summary>The elements of pay in the rows of a record.</summary>
public static class PayElementRows
{
    /// <summary>The key of the field.</summary>
    public const string Field = "pay_elements";

    internal const string Kind = "kind";
    internal const string Amount = "amount";
    internal const string Note = "note";
    internal const string Job = "job";
    internal const string Stated = "stated";
    internal const string Hours = "hours";
    internal const string CostCentre = "cost_centre";
    internal const string From = "from";
    internal const string Until = "until";
    internal const string Due = "due";

    internal const string Allowance = "allowance";
    internal const string SecondJob = "secondJob";
    internal const string OneOff = "oneOff";

    /// <summary>The columns as fields of the record that pay is worked out from.</summary>
    public static IReadOnlyList<string> Fields { get; } =
    [.. new[] { Kind, Amount, Note, Job, Stated, Hours, CostCentre, From, Until, Due }.Select(c => FieldAddress.ColumnKey(Field, c))];

    /// <summary>The columns that say a day on which something begins, ends or is paid, as fields of the record.</summary>
    public static IReadOnlyList<string> Days { get; } = [.. new[] { From, Until, Due }.Select(c => FieldAddress.ColumnKey(Field, c))];

    /// <summary>Reads them, in the order of days. One that does not say what it is, or how much, is passed over.</summary>
    /// <param name="values">What the record holds, by address.</param>
    public static IReadOnlyList<PayElement> Of(IReadOnlyDictionary<string, JsonElement> values) =>
        [
            .. HeldRows
                .Of(Field, values)
                .Select(Read)
                .OfType<PayElement>()
                .OrderBy(e => e.Kind)
                .ThenBy(e => e.Due ?? e.From ?? NodaTime.LocalDate.MinIsoValue)
                .ThenBy(e => e.Id),
        ];

    /// <summary>What is wrong with elements that were touched: something is missing that their kind needs, or two of them are paid for the same at
    /// the same time. The paths are a slash and the address of the cell to mend.</summary>
    /// <param name="values">All the record would hold, by address.</param>
    /// <param name="touched">The addresses that were entered.</param>
    public static IEnumerable<Problem> Problems(IReadOnlyDictionary<string, JsonElement> values, IEnumerable<string> touched)
    {
        var rows = touched.Select(FieldAddress.Read).Where(a => a.Whole == Field).Select(a => a.RowId).OfType<Guid>().ToHashSet();
        if (rows.Count == 0)
            return [];
        var held = HeldRows.Of(Field, values);
        var elements = Of(values);
        return held.Where(r => rows.Contains(r.Id)).SelectMany(r => Missing(r).Concat(Twice(r, elements)));
    }

    private static PayElement? Read(HeldRow row) =>
        KindOf(row) is not { } kind || row.Number(Amount) is not { } amount ? null
        : kind == PayElementKind.OneOff
            ? new PayElement(row.Id, kind, amount)
            {
                Due = row.Day(Due),
                CostCentre = row.Text(CostCentre),
                Note = row.Text(Note),
            }
        : new PayElement(row.Id, kind, amount, row.Day(From), row.Day(Until))
        {
            Stated = row.Text(Stated) switch
            {
                "plusPercent" => SecondJobKind.PlusPercent,
                "plusAmount" => SecondJobKind.PlusAmount,
                _ => SecondJobKind.Flat,
            },
            WeeklyHours = row.Number(Hours) ?? 0,
            Job = row.Text(Job),
            CostCentre = row.Text(CostCentre),
            Note = row.Text(Note),
        };

    private static PayElementKind? KindOf(HeldRow row) =>
        row.Text(Kind) switch
        {
            Allowance => PayElementKind.Allowance,
            SecondJob => PayElementKind.SecondJob,
            OneOff => PayElementKind.OneOff,
            _ => null,
        };

    private static IEnumerable<Problem> Missing(HeldRow row)
    {
        if (KindOf(row) is not { } kind)
            yield break;
        if (row.Number(Amount) is not { } amount)
            yield return At(Amount, "missing", "Say how much it is.");
        else if (amount < 0 && !(kind == PayElementKind.SecondJob && row.Text(Stated) is "plusPercent" or "plusAmount"))
            yield return At(Amount, "out-of-range", "What is paid is 0 or more.");
        if (kind == PayElementKind.SecondJob && row.Number(Hours) is null)
            yield return At(Hours, "missing", "Say how many hours a week the second job has.");
        if (kind == PayElementKind.OneOff && row.Day(Due) is null)
            yield return At(Due, "missing", "Say when it is due: the run of that period pays it.");
        // What does not go with a kind would be passed over in silence.
        foreach (var column in NotOf(kind).Where(c => row.Values.ContainsKey(row.Address(c))))
            yield return At(column, "not-in-kind", $"This does not go with {Words(kind)}. Empty it.");

        Problem At(string column, string code, string message) => new($"/{row.Address(column)}", code, message);
    }

    private static string[] NotOf(PayElementKind kind) =>
        kind switch
        {
            PayElementKind.Allowance => [Stated, Hours, Due],
            PayElementKind.SecondJob => [Due],
            _ => [Job, Stated, Hours, From, Until],
        };

    private static string Words(PayElementKind kind) =>
        kind switch
        {
            PayElementKind.Allowance => "an allowance",
            PayElementKind.SecondJob => "a second job",
            _ => "a one-off payment",
        };

    private static IEnumerable<Problem> Twice(HeldRow row, IReadOnlyList<PayElement> elements)
    {
        if (elements.FirstOrDefault(e => e.Id == row.Id) is { } element && elements.Any(e => e.Id != row.Id && Meet(e, element)))
            yield return new Problem(
                $"/{row.Address(element.Kind == PayElementKind.OneOff ? Due : From)}",
                "overlaps",
                element.Kind == PayElementKind.OneOff
                    ? "There is such a payment on that day already. Say what each is for, or take one away."
                    : "There is one for the same at the same time. End that one before, or say what each is for."
            );
    }

    // For the same: a second job by its job, everything by what it is said to be for.
    private static bool Meet(PayElement one, PayElement other) =>
        one.Kind == other.Kind
        && one.Job == other.Job
        && string.Equals(one.Note?.Trim(), other.Note?.Trim(), StringComparison.OrdinalIgnoreCase)
        && (one.Kind == PayElementKind.OneOff ? one.Due == other.Due : !(one.Until < other.From) && !(other.Until < one.From));
}
