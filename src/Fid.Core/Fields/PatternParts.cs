using System.Globalization;
using System.Text.RegularExpressions;

namespace Fid.Core.Fields;

/// <summary>
/// A regular expression as an automaton of its positions (Glushkov): each character or class in it is a position, and from each
/// some others can follow, in one or in several ways. What classes mean is left to the regular expressions of .NET: two positions
/// overlap where one of a number of sample characters fits both.
/// </summary>
internal sealed partial class PatternParts
{
    private const int MostPositions = 600;
    private const int MostRepeats = 60; // more often than this behaves as this often

    private readonly string _text;
    private readonly List<string> _atoms = [];
    private readonly List<Dictionary<int, int>> _follow = [];
    private int _at;

    private PatternParts(string text) => _text = text;

    /// <summary>For each position, those that can follow, and in how many ways (2 stands for several).</summary>
    public IReadOnlyList<IReadOnlyDictionary<int, int>> Follow => _follow;

    /// <summary>The positions; null for a pattern that has more of them than can be looked at.</summary>
    /// <param name="pattern">A pattern that .NET can read and that neither looks around nor refers back.</param>
    public static PatternParts? Read(string pattern)
    {
        var parts = new PatternParts(pattern);
        try
        {
            parts.Alternatives();
            return parts;
        }
        catch (PatternTooLargeException)
        {
            return null;
        }
    }

    /// <summary>For each position, the set of sample characters that fit it.</summary>
    public bool[][] Fits()
    {
        var samples = "aAzZmM059_- .,:;/\\@#'\"()[]{}+*?=<>|&%$!~^\t\nÄéßあЖ٣"
            .Concat(_text)
            .Concat(_text.Select(c => (char)(c + 1)))
            .Distinct()
            .Select(c => c.ToString())
            .ToArray();
        var known = new Dictionary<string, bool[]>(StringComparer.Ordinal);
        return
        [
            .. _atoms.Select(atom =>
            {
                if (known.TryGetValue(atom, out var fits))
                    return fits;
                var regex = new Regex($@"\A{atom}\z", RegexOptions.Singleline | RegexOptions.CultureInvariant);
                return known[atom] = [.. samples.Select(s => regex.IsMatch(s))];
            }),
        ];
    }

    private Part Alternatives()
    {
        var all = Sequence();
        while (Next('|'))
        {
            var other = Sequence();
            all = new Part([.. all.First, .. other.First], [.. all.Last, .. other.Last], all.Nullable || other.Nullable);
        }
        return all;
    }

    private Part Sequence()
    {
        var all = Part.Nothing;
        while (_at < _text.Length && _text[_at] is not ('|' or ')'))
            all = Join(all, Quantified());
        return all;
    }

    private Part Quantified()
    {
        var began = _at;
        var part = Atom();
        while (Quantifier() is var (least, most))
        {
            var behind = _at;
            part = Repeat(part, least, most, () =>
            {
                _at = began;
                var copy = Atom();
                _at = behind;
                return copy;
            });
        }
        return part;
    }

    private Part Repeat(Part part, int least, int? most, Func<Part> copy)
    {
        if (most is null)
        {
            var all = Part.Nothing;
            for (var i = 1; i < Math.Min(least, MostRepeats); i++)
                all = Join(all, i == 1 ? part : copy());
            var last = least > 1 ? copy() : part;
            Link(last.Last, last.First);
            return Join(all, last with { Nullable = last.Nullable || least == 0 });
        }
        // From the end, each with what may follow it: were they left out one by one, "a" would be a{0,2} in two ways.
        var whole = Part.Nothing;
        for (var i = Math.Min(most.Value, MostRepeats) - 1; i >= 0; i--)
        {
            whole = Join(i == 0 ? part : copy(), whole);
            whole = whole with { Nullable = whole.Nullable || i >= least };
        }
        return whole;
    }

    // (least, most), most null for any number; null where there is no quantifier here.
    private (int Least, int? Most)? Quantifier()
    {
        if (_at >= _text.Length)
            return null;
        (int, int?)? read = _text[_at] switch
        {
            '*' => (0, null),
            '+' => (1, null),
            '?' => (0, 1),
            _ => null,
        };
        if (read is not null)
            _at++;
        else if (Counted().Match(_text, _at) is { Success: true } counted && counted.Index == _at)
        {
            _at += counted.Length;
            var least = int.Parse(counted.Groups[1].ValueSpan, CultureInfo.InvariantCulture);
            read = (
                least,
                !counted.Groups[2].Success ? least
                : counted.Groups[3].Length == 0 ? null
                : int.Parse(counted.Groups[3].ValueSpan, CultureInfo.InvariantCulture)
            );
        }
        if (read is not null)
            Next('?');
        return read;
    }

    private Part Atom()
    {
        var began = _at;
        switch (_text[_at++])
        {
            case '(':
                if (Group().Match(_text, _at) is { Success: true } head && head.Index == _at)
                    _at += head.Length;
                var inside = Alternatives();
                Next(')');
                return inside;
            case '^' or '$':
                return Part.Nothing;
            case '\\':
                if (_text[_at] is 'b' or 'B' or 'A' or 'z' or 'Z' or 'G')
                {
                    _at++;
                    return Part.Nothing;
                }
                var escape = Escape().Match(_text, _at);
                _at += Math.Max(escape.Length, 1);
                break;
            case '[':
                if (Next('^')) { }
                if (Next(']')) { }
                for (; _at < _text.Length && _text[_at] != ']'; _at++)
                    if (_text[_at] == '\\')
                        _at++;
                _at++;
                break;
        }
        if (_atoms.Count >= MostPositions)
            throw new PatternTooLargeException();
        _atoms.Add(_text[began.._at]);
        _follow.Add([]);
        return new Part([_atoms.Count - 1], [_atoms.Count - 1], false);
    }

    private Part Join(Part left, Part right)
    {
        Link(left.Last, right.First);
        return new Part(
            left.Nullable ? [.. left.First, .. right.First] : left.First,
            right.Nullable ? [.. left.Last, .. right.Last] : right.Last,
            left.Nullable && right.Nullable
        );
    }

    private void Link(int[] from, int[] to)
    {
        foreach (var f in from)
        foreach (var t in to)
            _follow[f][t] = Math.Min(_follow[f].GetValueOrDefault(t) + 1, 2);
    }

    private bool Next(char c)
    {
        if (_at >= _text.Length || _text[_at] != c)
            return false;
        _at++;
        return true;
    }

    [GeneratedRegex(@"\{(\d{1,6})(,(\d{0,6}))?\}")]
    private static partial Regex Counted();

    [GeneratedRegex(@"\?(?::|<\w+>|'\w+'|[a-z-]+:)")]
    private static partial Regex Group();

    [GeneratedRegex(@"\G(?:[pP]\{\w+\}|x[0-9a-fA-F]{2}|u[0-9a-fA-F]{4}|c.|0[0-7]{0,2}|.)", RegexOptions.Singleline)]
    private static partial Regex Escape();

    private sealed record Part(int[] First, int[] Last, bool Nullable)
    {
        public static Part Nothing { get; } = new([], [], true);
    }

    private sealed class PatternTooLargeException : Exception;
}
