using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Fid.Core.Texts;

/// <summary>What typed text may be. Letters of every script are welcome; what no keyboard types is not.</summary>
public static partial class TextRules
{
    /// <summary>The longest line of text there is, in characters.</summary>
    public const int Longest = 200;

    /// <summary>What to tell somebody whose text cannot be stored.</summary>
    public const string BadCharacters = "Take out the control characters.";

    /// <summary>Trims and composes a text (Unicode normal form C), so that equal names compare equal however they were typed.
    /// False for text with control characters, lone surrogates, or marks that override the direction of what follows.</summary>
    public static bool TryClean(string text, out string clean)
    {
        clean = "";
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune == Rune.ReplacementChar && !text.Contains('\uFFFD', StringComparison.Ordinal))
                return false;
            if (
                Rune.GetUnicodeCategory(rune) is UnicodeCategory.Control or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator
                || rune.Value is >= 0x202A and <= 0x202E or >= 0x2066 and <= 0x2069
            )
                return false;
        }
        clean = text.Normalize(NormalizationForm.FormC).Trim();
        return true;
    }

    /// <summary>As <see cref="TryClean(string, out string)"/>, for a text of several lines, which are kept and end in a line feed.</summary>
    public static bool TryCleanLines(string text, out string clean)
    {
        clean = "";
        var lines = new List<string>();
        foreach (var line in text.ReplaceLineEndings("\n").Replace('\t', ' ').Split('\n'))
        {
            if (!TryClean(line, out var cleaned))
                return false;
            lines.Add(cleaned);
        }
        clean = string.Join('\n', lines).Trim();
        return true;
    }

    /// <summary>The same of a JSON text, which may not even be Unicode.</summary>
    public static bool TryCleanLines(JsonElement json, out string clean)
    {
        try
        {
            return TryCleanLines(json.GetString()!, out clean);
        }
        catch (InvalidOperationException)
        {
            clean = "";
            return false;
        }
    }

    /// <summary>As <see cref="TryClean(string, out string)"/>, for a JSON text, which may not even be Unicode.</summary>
    public static bool TryClean(JsonElement json, out string clean)
    {
        try
        {
            return TryClean(json.GetString()!, out clean);
        }
        catch (InvalidOperationException)
        {
            clean = "";
            return false;
        }
    }

    /// <summary>A text as searches compare it: lower case, without accents and other marks, runs of spaces as one. The same
    /// on every machine: the library's own normal forms need culture data, which not every machine has.</summary>
    public static string Fold(string text)
    {
        var folded = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            if (Rune.IsWhiteSpace(rune))
            {
                if (folded.Length > 0 && folded[^1] != ' ')
                    folded.Append(' ');
            }
            else if (Rune.GetUnicodeCategory(rune) is not (UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark))
                PlainLetters.Append(folded, Rune.ToLowerInvariant(rune));
        }
        return folded.ToString().Trim();
    }

    /// <summary>Whether two texts are the same to searches.</summary>
    public static bool AreAlike(string one, string other) => Fold(one) == Fold(other);

    /// <summary>A text as words to be found by how they begin, a space before each: folded, hyphens as spaces, apostrophes left out, ß as ss,
    /// since some type them in one way and some in another.</summary>
    public static string SearchWords(string text) =>
        " "
        + Fold(text.Replace('-', ' '))
            .Replace("'", "", StringComparison.Ordinal)
            .Replace("’", "", StringComparison.Ordinal)
            .Replace("ß", "ss", StringComparison.Ordinal);

    /// <summary>Whether a text looks like an e-mail address: one @ with something on both sides and a dot in the domain.</summary>
    public static bool IsEmail(string text) => text.Length <= 254 && EmailShape().IsMatch(text);

    /// <summary>Whether a text looks like a telephone number: digits and the usual marks, at least four digits.</summary>
    public static bool IsPhone(string text) => PhoneShape().IsMatch(text) && text.Count(char.IsAsciiDigit) >= 4;

    [GeneratedRegex(@"^[^\s@<>""(),:;\\\[\]]+@[^\s@<>""(),:;\\\[\]]+\.[^\s@.<>""(),:;\\\[\]]+$", RegexOptions.NonBacktracking)]
    private static partial Regex EmailShape();

    [GeneratedRegex(@"^\+?[0-9 ()/.\-]{4,40}$")]
    private static partial Regex PhoneShape();
}
