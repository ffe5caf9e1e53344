using System.Collections;
using System.Globalization;
using Fid.Core.Calendars;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Formulas;

/// <summary>The functions that formulas over a record have beside those of the expression library. Each gives nothing where it
/// is given nothing.</summary>
internal static class RecordFunctions
{
    private static readonly IReadOnlyDictionary<string, int> Known = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase)
    {
        ["addDays"] = 2,
        ["addMonths"] = 2,
        ["addWorkingDays"] = 2,
        ["ageOn"] = 2,
        ["today"] = 0,
    };

    /// <summary>How many arguments each takes; firstOf, which takes any number, is not among them.</summary>
    public static IReadOnlyDictionary<string, int> Arguments => Known;

    /// <summary>Whether a value is none: null, an empty text, an empty list.</summary>
    public static bool IsEmpty(object? value) => value is null or "" or ICollection { Count: 0 };

    /// <summary>Whether a text is a date as ISO 8601 writes it.</summary>
    public static bool IsDate(string text, out LocalDate date)
    {
        date = default;
        return text.Length == 10 && text[4] == '-' && LocalDatePattern.Iso.Parse(text).TryGetValue(default, out date);
    }

    /// <summary>Computes one of <see cref="Arguments"/>.</summary>
    public static object? Call(string name, object? first, object? second, FormulaFacts facts)
    {
        if (name.Equals("today", StringComparison.OrdinalIgnoreCase))
            return Text(facts.Today);
        if (IsEmpty(first) || IsEmpty(second))
            return null;
        var from = Date(first);
        return name.ToUpperInvariant() switch
        {
            "ADDDAYS" => Text(from.PlusDays(Whole(second))),
            "ADDMONTHS" => Text(from.PlusMonths(Whole(second))),
            "ADDWORKINGDAYS" => facts.Calendar.Add(from, Whole(second)) is { } day ? Text(day) : null,
            _ => (decimal)Age.On(from, Date(second)),
        };
    }

    private static LocalDate Date(object? value) => value is string text && IsDate(text, out var date) ? date : throw new FormatException("This is no date.");

    private static int Whole(object? value)
    {
        var number = Convert.ToDecimal(value, CultureInfo.InvariantCulture);
        return number == decimal.Truncate(number) && Math.Abs(number) <= 1_000_000 ? (int)number : throw new ArgumentException("A whole number is needed.");
    }

    private static string Text(LocalDate date) => LocalDatePattern.Iso.Format(date);
}
