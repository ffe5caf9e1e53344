using System.Globalization;
using NCalc;
using NCalc.Exceptions;

namespace Fid.Core.Formulas;

/// <summary>
/// A formula that comes to a number, in the expression library's own syntax: names of what it reads (in square brackets where
/// they hold more than letters, digits and underscores), numbers, + − * / %, comparisons, and the functions of
/// <see cref="Functions"/>. Parsed once, computed in decimals. It can reach nothing but the names it is given.
/// </summary>
public sealed class NumberFormula
{
    /// <summary>The longest formula, in characters.</summary>
    public const int Longest = 500;

    private readonly LogicalExpression _parsed;

    private NumberFormula(LogicalExpression parsed, IReadOnlyList<string> names) => (_parsed, Names) = (parsed, names);

    /// <summary>The functions there are. None of them can run away: powers are left out.</summary>
    public static IReadOnlyCollection<string> Functions { get; } = ["Abs", "Ceiling", "Floor", "Max", "Min", "Round", "Sign", "Truncate", "if", "in"];

    /// <summary>What it reads, each once.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Reads a formula. The one problem has an empty path, and says at which character reading stopped where that is known.</summary>
    public static Result<NumberFormula> Read(string text) =>
        ParsedFormula.Read(text, Longest, Functions) switch
        {
            ({ } formula, _) => new NumberFormula(formula.Root, formula.Names),
            var (_, mistake) => Result<NumberFormula>.Failed(new Problem("", "formula-error", mistake!.Message)),
        };

    /// <summary>The number it comes to with the values of its <see cref="Names"/>; a problem where it comes to none.</summary>
    public (decimal Value, string? Trouble) Compute(Func<string, decimal> valueOf)
    {
        var expression = ParsedFormula.Express(_parsed);
        foreach (var name in Names)
            expression.Parameters[name] = valueOf(name);
        try
        {
            var value = expression.Evaluate();
            return value switch
            {
                bool => (0, "It comes to yes or no, not to a number."),
                string => (0, "It comes to a text, not to a number."),
                null => (0, "It comes to nothing."),
                _ => (Convert.ToDecimal(value, CultureInfo.InvariantCulture), null),
            };
        }
        catch (DivideByZeroException)
        {
            return (0, "It divides by zero.");
        }
        catch (Exception e)
            when (e is OverflowException or NCalcException or InvalidCastException or FormatException or ArgumentException or InvalidOperationException)
        {
            return (0, e is OverflowException ? "It comes to a number that is too large." : "It cannot be computed with these values.");
        }
    }
}
