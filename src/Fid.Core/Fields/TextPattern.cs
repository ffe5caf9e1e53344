using System.Text.RegularExpressions;

namespace Fid.Core.Fields;

/// <summary>A regular expression that the whole of a text must match, in time that grows with the text alone.</summary>
internal sealed class TextPattern
{
    /// <summary>The longest pattern, in characters.</summary>
    public const int Longest = 300;

    // Made when first matched: to make one takes longer than all else that is done with a pattern.
    private readonly Lazy<Regex> _regex;

    private TextPattern(string text) =>
        _regex = new Lazy<Regex>(() => new Regex($@"\A(?:{text})\z", RegexOptions.CultureInvariant | RegexOptions.NonBacktracking));

    /// <summary>Reads a pattern; a sentence that says what is wrong with it otherwise.</summary>
    public static (TextPattern? Pattern, string? Trouble) Read(string text)
    {
        if (text.Length > Longest)
            return (null, $"A pattern has at most {Longest} characters.");
        try
        {
            // By itself, so that a bracket that closes too early is not taken for ours.
            _ = new Regex(text, RegexOptions.CultureInvariant);
            return LooksElsewhere(text)
                ? (null, "It looks ahead or behind, or refers back; such a pattern can run away. Write it without.")
                : (new TextPattern(text), null);
        }
        catch (ArgumentException e)
        {
            return (null, e is RegexParseException at ? $"It cannot be read at character {at.Offset}: {Words(at.Error)}." : "It cannot be read.");
        }
    }

    // What linear matching does not know: looking around, references back, atomic and balancing groups, conditions.
    private static bool LooksElsewhere(string text)
    {
        var inClass = false;
        for (var i = 0; i < text.Length; i++)
        {
            var rest = text.AsSpan(i + 1);
            if (text[i] == '\\')
            {
                if (!inClass && rest is [>= '1' and <= '9' or 'k' or 'G', ..])
                    return true;
                i++;
            }
            else if (inClass)
                inClass = text[i] != ']';
            else if (text[i] == '[')
            {
                inClass = true;
                if (rest is ['^', ..])
                    i++;
                if (text.AsSpan(i + 1) is [']', ..])
                    i++;
            }
            else if (text[i] == '(' && (rest is ['?', '=' or '!' or '>' or '(', ..] or ['?', '<', '=' or '!', ..] || IsBalancing(rest)))
                return true;
        }
        return false;
    }

    // (?<name-other>…)
    private static bool IsBalancing(ReadOnlySpan<char> rest) =>
        rest is ['?', '<' or '\'', ..] && rest[..(rest.IndexOfAny('>', ')') is var end and > 0 ? end : rest.Length)].Contains('-');

    // "UnterminatedBracket" as "unterminated bracket".
    private static string Words(RegexParseError error) =>
        string.Concat(error.ToString().Select((c, i) => char.IsUpper(c) ? (i > 0 ? " " : "") + char.ToLowerInvariant(c) : c.ToString()));

    /// <summary>Whether the whole of a text matches.</summary>
    public bool Matches(string text) => _regex.Value.IsMatch(text);
}
