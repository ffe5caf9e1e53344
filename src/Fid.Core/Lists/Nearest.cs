using Fid.Core.Fields;

namespace Fid.Core.Lists;

/// <summary>Finds what somebody probably meant.</summary>
public static class Nearest
{
    /// <summary>The candidate that is nearest by spelling: the same but for capitals, accents and spaces, or with few letters
    /// wrong, missing, added or swapped; null where none comes near.</summary>
    /// <param name="candidates">The spellings; several may lead to one key.</param>
    public static string? Find(string text, IEnumerable<(string Spelling, string Key)> candidates)
    {
        var wanted = TextRules.Fold(text);
        if (wanted.Length == 0) return null;
        var (best, distance) = ((string?)null, wanted.Length <= 3 ? 2 : wanted.Length / 3 + 2); // must be nearer than this
        foreach (var (spelling, key) in candidates)
        {
            var folded = TextRules.Fold(spelling);
            if (Math.Abs(folded.Length - wanted.Length) >= distance && !folded.StartsWith(wanted, StringComparison.Ordinal)) continue;
            var d = Distance(wanted, folded, distance);
            // Somebody who leaves the end off means the shortest that goes on so.
            if (d >= distance && wanted.Length >= 3 && folded.StartsWith(wanted, StringComparison.Ordinal)) d = distance - 1;
            if (d < distance) (best, distance) = (key, d);
            if (distance == 0) break;
        }
        return best;
    }

    /// <summary>How many letters must be changed, added, taken away or swapped with their neighbour (optimal string alignment);
    /// anything from <paramref name="limit"/> on stands for "too many".</summary>
    public static int Distance(string a, string b, int limit = int.MaxValue)
    {
        var (before, last, row) = (new int[b.Length + 1], new int[b.Length + 1], new int[b.Length + 1]);
        for (var j = 0; j <= b.Length; j++) last[j] = j;
        for (var i = 1; i <= a.Length; i++)
        {
            row[0] = i;
            var least = i;
            for (var j = 1; j <= b.Length; j++)
            {
                var cost = a[i - 1] == b[j - 1] ? 0 : 1;
                var d = Math.Min(Math.Min(row[j - 1] + 1, last[j] + 1), last[j - 1] + cost);
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) d = Math.Min(d, before[j - 2] + 1);
                row[j] = d;
                least = Math.Min(least, d);
            }
            if (least >= limit) return limit;
            (before, last, row) = (last, row, before);
        }
        return last[b.Length];
    }
}
