using System.Globalization;
using NCalc;
using NCalc.Exceptions;
using NodaTime;

namespace Fid.Core.Formulas;

/// <summary>
/// A formula over the fields of a record, in the expression library's own syntax: field keys as names; numbers, texts in quotes,
/// true, false and null; + − * / %, comparisons, in, like, and, or, not, ? :, ??; and the functions of <see cref="Functions"/>.
/// A date is a text as ISO 8601 writes it, so dates compare and are passed on as texts. A field without a value is null, to which
/// an empty text is equal. Parsed once; it can reach nothing but the values it is given, and it comes to an end: there are no
/// loops and no powers, and its length and depth are bounded.
/// </summary>
public sealed class RecordFormula
{
    /// <summary>The longest formula, in characters.</summary>
    public const int Longest = 1000;

    private readonly ParsedFormula _parsed;

    private RecordFormula(string text, ParsedFormula parsed) => (Text, _parsed) = (text, parsed);

    /// <summary>The functions there are: those of the expression library that are of use here, and <see cref="RecordFunctions"/>.</summary>
    public static IReadOnlyCollection<string> Functions { get; } =
    [
        "addDays",
        "addMonths",
        "addWorkingDays",
        "ageOn",
        "firstOf",
        "today",
        "Abs",
        "Ceiling",
        "Floor",
        "if",
        "ifs",
        "in",
        "Max",
        "Min",
        "Round",
        "Sign",
        "Truncate",
    ];

    /// <summary>The formula as it was written.</summary>
    public string Text { get; }

    /// <summary>The names it reads, each once.</summary>
    public IReadOnlyList<string> Names => _parsed.Names;

    /// <summary>Whether it depends on the day on which it is computed.</summary>
    public bool AsksForToday => _parsed.Calls.Contains("today", StringComparer.OrdinalIgnoreCase);

    internal LogicalExpression Root => _parsed.Root;

    /// <summary>Reads a formula; what is wrong with it otherwise.</summary>
    public static (RecordFormula? Formula, FormulaMistake? Mistake) Read(string text) =>
        ParsedFormula.Read(text, Longest, Functions) switch
        {
            ({ } parsed, _) => (new RecordFormula(text, parsed), null),
            var (_, mistake) => (null, mistake),
        };

    /// <summary>
    /// What it comes to: null, a text, a decimal, a bool or a list of these. Where it cannot be computed with these values, null and
    /// a sentence saying why.
    /// </summary>
    /// <param name="facts">What it may read.</param>
    public (object? Value, string? Trouble) Compute(FormulaFacts facts)
    {
        try
        {
            var value = _parsed.Root.Accept(new RecordFormulaVisitor(facts));
            return value switch
            {
                null or string or bool => (value, null),
                decimal number => (number / 1.000000000000000000000000000m, null), // without zeros at the end
                double.NaN or double.PositiveInfinity or double.NegativeInfinity or float.NaN => (null, "It divides by zero."),
                IEnumerable<object?> list => (list.ToList(), null),
                IConvertible number => (number.ToDecimal(CultureInfo.InvariantCulture), null),
                _ => (null, "It comes to something that is no value of a field."),
            };
        }
        catch (DivideByZeroException)
        {
            return (null, "It divides by zero.");
        }
        catch (Exception e)
            when (e is NCalcException or ArithmeticException or InvalidCastException or FormatException or ArgumentException or InvalidOperationException)
        {
            // The library calls a whole number divided by a whole zero an overflow.
            return (null, e is OverflowException ? "It comes to a number that is too large, or divides by zero." : "It cannot be computed with these values.");
        }
    }

    /// <summary>Whether it comes to true; nothing, and what cannot be computed, is not true.</summary>
    public bool Holds(FormulaFacts facts) => Compute(facts).Value is true;

    /// <summary>Whether a text is a date as formulas have them.</summary>
    public static bool IsDate(string text, out LocalDate date) => RecordFunctions.IsDate(text, out date);
}

/// <summary>What a formula may read.</summary>
/// <param name="ValueOf">The value of a field by its key: null, a text (also for dates), a decimal, a bool, or a list.</param>
/// <param name="Today">What today() gives.</param>
/// <param name="Calendar">The working days that addWorkingDays counts.</param>
public sealed record FormulaFacts(Func<string, object?> ValueOf, LocalDate Today, Calendars.WorkCalendar Calendar);
