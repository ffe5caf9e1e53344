using System.Text.Json;
using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.PayElements;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>What follows from values that are entered into a record, by whichever way they come.</summary>
public static class RecordRules
{
    /// <summary>What the rules of the entered fields set in others, and which of what was entered does not go with the rest.</summary>
    /// <param name="set">The live fields.</param>
    /// <param name="held">What the record holds; values are entered on top.</param>
    /// <param name="entered">The new values by field; null empties one.</param>
    /// <param name="today">Today.</param>
    /// <param name="calendarOf">The calendar that formulas of a record count in.</param>
    public static RuledEdits Follow(
        FieldSet set,
        IReadOnlyDictionary<string, JsonElement> held,
        IReadOnlyDictionary<string, JsonElement?> entered,
        LocalDate today,
        Func<IReadOnlyDictionary<string, JsonElement>, WorkCalendar?> calendarOf
    )
    {
        var values = new Dictionary<string, JsonElement>(held, StringComparer.Ordinal);
        foreach (var (key, value) in entered)
        {
            if (value is { } v)
                values[key] = v;
            else
                values.Remove(key);
        }
        var changed = set.Fields.Select(f => f.Key).Where(entered.ContainsKey).Concat(entered.Keys.Where(FieldAddress.IsInRow)).ToList();
        var evaluated = RecordEvaluation.Of(
            set,
            new RecordQuestion(values, [.. entered.Keys], changed, null, null, today, RecordQuestion.NoLists, calendarOf(values))
        );
        var ruled = evaluated
            .SetBy.Where(s => s.Value.StartsWith("rule:", StringComparison.Ordinal))
            .Select(s => new FieldEdit(s.Key, evaluated.Values[s.Key], s.Value, null))
            .ToList();
        // A row starts with the defaults of its columns.
        var rows = held.Keys.Where(FieldAddress.IsInRow).Select(RowOf).ToHashSet();
        ruled.AddRange(
            evaluated
                .SetBy.Where(s => s.Value == "default" && FieldAddress.IsInRow(s.Key) && !rows.Contains(RowOf(s.Key)))
                .Select(s => new FieldEdit(s.Key, evaluated.Values[s.Key], s.Value, null))
        );
        ruled.AddRange(evaluated.Emptied.Where(values.ContainsKey).Select(key => new FieldEdit(key, null, "rule", null)));
        var problems = evaluated
            .Errors.Where(e => entered.ContainsKey(e.Field) && e.Misfit is Misfit.Within or Misfit.Option)
            .Select(e => new Problem(
                $"/{e.Field}",
                "not-offered",
                e.Misfit == Misfit.Within
                    ? $"This cannot be chosen with this {ParentOf(set, e.Field).Label("en")}. Choose another."
                    : "This can no longer be chosen. Choose another."
            ))
            .Concat(RowProblems(set, values, [.. entered.Keys]))
            .ToList();
        return new RuledEdits(ruled, problems);

        static (string, string?) RowOf(string address) => FieldAddress.Read(address) is var at ? (at.Whole, at.Row) : default;
    }

    /// <summary>What is wrong with rows that were touched; the paths are a slash and the address of the cell to mend.</summary>
    /// <param name="values">All the record would hold, by address.</param>
    /// <param name="touched">The addresses that were entered.</param>
    public static IEnumerable<Problem> RowProblems(FieldSet set, IReadOnlyDictionary<string, JsonElement> values, IReadOnlyCollection<string> touched) =>
        RowRules.Problems(set, values, touched).Concat(PayElementRows.Problems(values, touched)).Concat(CostSplitRows.Problems(values, touched));

    // What narrows a column is another column, or a field of the record.
    private static FieldDefinition ParentOf(FieldSet set, string address)
    {
        var parent = set.Find(address)!.Parent!;
        return (FieldAddress.Read(address) is { Row: { } row, Whole: var whole } ? set.Find(FieldAddress.Cell(whole, parent, row).ToString()) : null)
            ?? set.Find(parent)!;
    }

    /// <summary>What no record can do without, and what is out of order; the paths are a slash and the field's key.</summary>
    /// <param name="entered">The new values by field; null empties one.</param>
    /// <param name="start">The employment's first day.</param>
    public static IEnumerable<Problem> Misfits(IReadOnlyDictionary<string, JsonElement?> entered, LocalDate start)
    {
        foreach (var name in new[] { "given_name", "family_name" })
            if (entered.TryGetValue(name, out var value) && value is null)
                yield return new Problem($"/{name}", "missing", "A record needs a name.");
        if (entered.TryGetValue("end_date", out var end) && end is { } text && LocalDate.FromDateTime(text.GetDateTime()) < start)
            yield return new Problem("/end_date", "not-in-order", "The end is not before the start.");
    }
}

/// <summary>What follows from what was entered.</summary>
/// <param name="Ruled">What the rules set.</param>
/// <param name="Problems">What does not go together; the paths are a slash and the field's key.</param>
public sealed record RuledEdits(IReadOnlyList<FieldEdit> Ruled, IReadOnlyList<Problem> Problems);
