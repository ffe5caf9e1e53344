using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Fid.Core.People;

/// <summary>
/// How a firm writes its employee numbers: letters, digits, hyphens and points as they stand, and in braces {number} for the running
/// number, {number:5} for at least five digits of it, {year} or {yy} for the year of the first day, and {check} for a check digit
/// (ISO/IEC 7812-1, annex B, "mod 10") over all digits before it. "H{yy}-{number:4}{check}" gives H27-00433 for the 43rd of 2027.
/// </summary>
public sealed partial class EmployeeNumberPattern
{
    /// <summary>The running number and nothing else.</summary>
    public const string Plain = "{number}";

    /// <summary>The longest number, in characters.</summary>
    public const int Longest = 20;

    private const int MostDigits = 10;

    private readonly IReadOnlyList<Part> _parts;

    private EmployeeNumberPattern(IReadOnlyList<Part> parts) => _parts = parts;

    /// <summary>Whether the running number begins anew each year.</summary>
    public bool RunsByYear => _parts.Any(p => p.Kind is Kind.Year or Kind.ShortYear);

    /// <summary>Reads a pattern.</summary>
    /// <returns>Problems, without a path: "bad-pattern", with a sentence saying what to do.</returns>
    public static Result<EmployeeNumberPattern> Read(string text)
    {
        var parts = new List<Part>();
        var at = 0;
        foreach (Match match in Token().Matches(text))
        {
            if (match.Index > at)
                parts.Add(new Part(Kind.Literal, text[at..match.Index], 0));
            at = match.Index + match.Length;
            var digits = match.Groups[2].Success ? int.Parse(match.Groups[2].ValueSpan, CultureInfo.InvariantCulture) : 1;
            parts.Add(
                match.Groups[1].Value switch
                {
                    "number" => new Part(Kind.Number, "", digits),
                    "year" => new Part(Kind.Year, "", 4),
                    "yy" => new Part(Kind.ShortYear, "", 2),
                    _ => new Part(Kind.Check, "", 1),
                }
            );
        }
        if (at < text.Length)
            parts.Add(new Part(Kind.Literal, text[at..], 0));

        var (number, check) = (parts.FindIndex(p => p.Kind == Kind.Number), parts.FindIndex(p => p.Kind == Kind.Check));
        if (parts.Any(p => p.Kind == Kind.Literal && !Literal().IsMatch(p.Text)))
            return Wrong("Write letters, digits, hyphens and points, and in braces only {number}, {number:5}, {year}, {yy} and {check}.");
        if (parts.Count(p => p.Kind == Kind.Number) != 1)
            return Wrong("Write {number} once: it is what makes each number another.");
        if (parts.Count(p => p.Kind == Kind.Check) > 1 || (check >= 0 && check < number))
            return Wrong("Write {check} at most once, after {number}.");
        if (parts[number].Digits is < 1 or > MostDigits)
            return Wrong($"A running number has 1 to {MostDigits} digits.");
        // A digit right beside it would make 1 of 12 the same as 11 of 2.
        if (parts[number].Digits == 1 && Beside(parts, number))
            return Wrong("Say how many digits the running number has, such as {number:5}: other digits stand beside it.");
        var pattern = new EmployeeNumberPattern(parts);
        return parts.Sum(p => p.Kind == Kind.Literal ? p.Text.Length : p.Digits) > Longest ? Wrong($"A number has at most {Longest} characters.") : pattern;
    }

    /// <summary>The employee number of a running number; null where it would be too long.</summary>
    /// <param name="number">The running number, from 1.</param>
    /// <param name="year">The year it belongs to.</param>
    public string? Format(long number, int year)
    {
        var text = new StringBuilder(Longest);
        foreach (var part in _parts)
            _ = part.Kind switch
            {
                Kind.Number => text.Append(number.ToString(CultureInfo.InvariantCulture).PadLeft(part.Digits, '0')),
                Kind.Year => text.Append(year.ToString("0000", CultureInfo.InvariantCulture)),
                Kind.ShortYear => text.Append((year % 100).ToString("00", CultureInfo.InvariantCulture)),
                Kind.Check => text.Append(CheckDigit(text.ToString())),
                _ => text.Append(part.Text),
            };
        return text.Length > Longest ? null : text.ToString();
    }

    /// <summary>The check digit over the digits of a text: from the last on every second one is doubled, 9 taken off where that passes
    /// 9; with the digit the sum is a multiple of ten.</summary>
    public static char CheckDigit(string text)
    {
        var (sum, doubled) = (0, true);
        foreach (var c in text.Where(char.IsAsciiDigit).Reverse())
        {
            var digit = (c - '0') * (doubled ? 2 : 1);
            sum += digit > 9 ? digit - 9 : digit;
            doubled = !doubled;
        }
        return (char)('0' + (10 - sum % 10) % 10);
    }

    private static bool Beside(List<Part> parts, int number) =>
        (number > 0 && parts[number - 1] is var before && (before.Kind != Kind.Literal || char.IsAsciiDigit(before.Text[^1])))
        || (number + 1 < parts.Count && parts[number + 1] is var after && (after.Kind != Kind.Literal || char.IsAsciiDigit(after.Text[0])));

    private static Result<EmployeeNumberPattern> Wrong(string message) => Result<EmployeeNumberPattern>.Failed(new Problem("", "bad-pattern", message));

    [GeneratedRegex(@"\{(number|year|yy|check)(?::(\d{1,2}))?\}")]
    private static partial Regex Token();

    [GeneratedRegex(@"^[\p{L}0-9.\-]+$")]
    private static partial Regex Literal();

    private enum Kind
    {
        Literal,
        Number,
        Year,
        ShortYear,
        Check,
    }

    private sealed record Part(Kind Kind, string Text, int Digits);
}
