using System.Globalization;
using System.Text.RegularExpressions;
using NCalc;
using NCalc.Exceptions;

namespace Fid.Core.Formulas;

/// <summary>A formula as the expression library parsed it, once, within bounds: of length, of depth, and of what it calls.</summary>
internal sealed partial class ParsedFormula
{
    /// <summary>The deepest that brackets and calls may be nested.</summary>
    public const int Deepest = 60;

    private const string NoPowers = "Powers cannot be used. Multiply instead.";

    private ParsedFormula(LogicalExpression root, IReadOnlyList<string> names, IReadOnlyCollection<string> calls) =>
        (Root, Names, Calls) = (root, names, calls);

    /// <summary>How formulas are read and computed: in decimals, text compared letter by letter, nothing as a value of its own.</summary>
    public static Expression Express(string text) => new(text, Options) { CultureInfo = CultureInfo.InvariantCulture };

    /// <summary>What <see cref="Express(string)"/> gives, for a formula that was read before.</summary>
    public static Expression Express(LogicalExpression root) => new(root, Options) { CultureInfo = CultureInfo.InvariantCulture };

    private const ExpressionOptions Options =
        ExpressionOptions.DecimalAsDefault
        | ExpressionOptions.NoCache
        | ExpressionOptions.OverflowProtection
        | ExpressionOptions.RoundAwayFromZero
        | ExpressionOptions.IgnoreCaseAtBuiltInFunctions
        | ExpressionOptions.AllowNullParameter
        | ExpressionOptions.OrdinalStringComparer
        | ExpressionOptions.NoStringTypeCoercion;

    public LogicalExpression Root { get; }

    /// <summary>What it reads, each once.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>The functions it calls, as it writes them.</summary>
    public IReadOnlyCollection<string> Calls { get; }

    /// <summary>Reads a formula.</summary>
    /// <param name="text">The formula.</param>
    /// <param name="longest">The most characters it may have.</param>
    /// <param name="functions">The functions it may call, without regard to case.</param>
    /// <returns>The formula; or what is wrong, and the character (from 1) where reading stopped, if that is known.</returns>
    public static (ParsedFormula? Formula, FormulaMistake? Mistake) Read(string text, int longest, IReadOnlyCollection<string> functions)
    {
        if (string.IsNullOrWhiteSpace(text))
            return Failed("Enter a formula.");
        if (text.Length > longest)
            return Failed($"A formula has at most {longest} characters.");
        if (Nesting(text) > Deepest)
            return Failed($"Brackets may be nested {Deepest} deep.");
        var expression = Express(text);
        try
        {
            if (expression.HasErrors())
                return Unreadable(text, expression.Error);
            var root = expression.GetLogicalExpression()!;
            if (FormulaBounds.Check(root, Deepest) is { } breach)
                return Failed(breach == FormulaBounds.Power ? NoPowers : breach);
            var calls = expression.GetFunctionNames();
            if (calls.FirstOrDefault(f => !functions.Contains(f, StringComparer.OrdinalIgnoreCase)) is { } unknown)
                return (null, new FormulaMistake($"There is no function {unknown}. Known: {string.Join(", ", functions)}.", At(text, unknown), unknown));
            return (new ParsedFormula(root, [.. expression.GetParameterNames().Where(n => !IsNothing(n)).Distinct(StringComparer.Ordinal)], calls), null);
        }
        catch (NCalcException e)
        {
            return Unreadable(text, e);
        }
    }

    /// <summary>Whether a name is the word for no value.</summary>
    public static bool IsNothing(string name) => name.Equals("null", StringComparison.OrdinalIgnoreCase);

    /// <summary>The character, from 1, at which a name stands in a formula.</summary>
    public static int? At(string text, string name)
    {
        var found = Regex.Match(text, $@"(?<![\w'""]){Regex.Escape(name)}(?!\w)", RegexOptions.CultureInvariant);
        return found.Success ? found.Index + 1 : null;
    }

    private static int Nesting(string text)
    {
        var (deep, most) = (0, 0);
        foreach (var c in text)
        {
            if (c == '(')
                most = Math.Max(most, ++deep);
            else if (c == ')')
                deep--;
        }
        return most;
    }

    private static (ParsedFormula?, FormulaMistake?) Failed(string message) => (null, new FormulaMistake(message));

    private static (ParsedFormula?, FormulaMistake?) Unreadable(string text, Exception? error)
    {
        var at = Position().Match(error?.InnerException?.Message ?? error?.Message ?? "");
        if (!at.Success)
            return Failed("The formula cannot be read. Look for a missing bracket or sign.");
        var character = Math.Min(int.Parse(at.Groups[1].ValueSpan, CultureInfo.InvariantCulture), text.Length);
        return (null, new FormulaMistake($"The formula cannot be read from character {character} on.", character));
    }

    [GeneratedRegex(@"\(\d+:(\d+)\)")]
    private static partial Regex Position();
}

/// <summary>Why a formula cannot be read.</summary>
/// <param name="Message">A sentence saying so.</param>
/// <param name="Character">The character, from 1, at which it is wrong; null where that is not known.</param>
/// <param name="Function">The function that there is not, where it is that.</param>
public sealed record FormulaMistake(string Message, int? Character = null, string? Function = null);
