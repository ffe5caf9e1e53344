using F23.StringSimilarity;

namespace Fid.Core.Texts;

/// <summary>Finds what somebody probably meant.</summary>
public static class Nearest
{
    // Letters wrong, missing, added, or swapped with their neighbour.
    private static readonly OptimalStringAlignment Letters = new();

    /// <summary>The candidate that is nearest by spelling: the same but for capitals, accents and spaces, or with few letters
    /// wrong, missing, added or swapped; null where none comes near.</summary>
    /// <param name="candidates">The spellings; several may lead to one key.</param>
    public static string? Find(string text, IEnumerable<(string Spelling, string Key)> candidates)
    {
        var wanted = TextRules.Fold(text);
        if (wanted.Length == 0)
            return null;
        var (best, distance) = ((string?)null, wanted.Length <= 3 ? 2 : wanted.Length / 3 + 2); // must be nearer than this
        foreach (var (spelling, key) in candidates)
        {
            var folded = TextRules.Fold(spelling);
            if (Math.Abs(folded.Length - wanted.Length) >= distance && !folded.StartsWith(wanted, StringComparison.Ordinal))
                continue;
            var d = (int)Letters.Distance(wanted, folded);
            // Somebody who leaves the end off means the shortest that goes on so.
            if (d >= distance && wanted.Length >= 3 && folded.StartsWith(wanted, StringComparison.Ordinal))
                d = distance - 1;
            if (d < distance)
                (best, distance) = (key, d);
            if (distance == 0)
                break;
        }
        return best;
    }
}
