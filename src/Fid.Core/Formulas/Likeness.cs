namespace Fid.Core.Formulas;

/// <summary>
/// The comparison "like", whose pattern has % for any number of characters and _ for one. Done here rather than by a regular
/// expression, which a pattern full of % can keep busy for ever: this takes at most the length of the text times that of the pattern.
/// </summary>
internal static class Likeness
{
    /// <summary>Whether a text is like a pattern, to the letter and as a whole; nothing is like nothing.</summary>
    public static bool Matches(object? value, object? pattern)
    {
        if (value is not string text || pattern is not string like)
            return false;
        int at = 0,
            p = 0,
            star = -1,
            mark = 0;
        while (at < text.Length)
        {
            if (p < like.Length && like[p] == '%')
            {
                (star, mark) = (p++, at);
            }
            else if (p < like.Length && (like[p] == '_' || like[p] == text[at]))
            {
                p++;
                at++;
            }
            else if (star >= 0)
            {
                // Whatever stood for the last % takes one character more.
                p = star + 1;
                at = ++mark;
            }
            else
                return false;
        }
        while (p < like.Length && like[p] == '%')
            p++;
        return p == like.Length;
    }
}
