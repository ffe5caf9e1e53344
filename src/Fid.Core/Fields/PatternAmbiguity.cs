namespace Fid.Core.Fields;

/// <summary>
/// Whether a regular expression can run away: whether a text exists for which the number of ways to match grows exponentially
/// with its length. That is so when from some position one can come back to it in two different ways over the same characters
/// (exponential ambiguity of an automaton: Weber and Seidl, 1991). Fid itself matches in linear time; but patterns are exported,
/// and run in browsers and other programs, which may not.
/// </summary>
internal static class PatternAmbiguity
{
    private const int MostPairs = 60_000;

    /// <summary>Whether it can run away. What is too large to look at counts as such.</summary>
    public static bool CanRunAway(string pattern)
    {
        if (PatternParts.Read(pattern) is not { } parts)
            return true;
        var (follow, fits, count) = (parts.Follow, parts.Fits(), parts.Follow.Count);
        var overlap = new bool?[count, count];
        // Pairs of positions reached over the same characters, as far as they can be reached from a position paired with itself.
        var next = new Dictionary<int, List<int>>();
        var open = new Stack<int>(Enumerable.Range(0, count).Select(p => p * count + p));
        while (open.TryPop(out var pair))
        {
            if (next.ContainsKey(pair))
                continue;
            if (next.Count > MostPairs)
                return true;
            var to = next[pair] = [];
            foreach (var p in follow[pair / count].Keys)
            foreach (var q in follow[pair % count].Keys)
            {
                if (!(overlap[p, q] ??= Overlap(fits[p], fits[q])))
                    continue;
                to.Add(p * count + q);
                open.Push(p * count + q);
            }
        }
        var pairs = next.Keys.ToArray();
        var index = pairs.Select((p, i) => (p, i)).ToDictionary(x => x.p, x => x.i);
        var component = DependencySort.Components([.. pairs.Select(p => next[p].Select(n => index[n]).ToArray())]);
        for (var p = 0; p < count; p++)
        {
            var own = component[index[p * count + p]];
            // Back to itself by a detour over two different positions …
            if (pairs.Any(pair => pair / count != pair % count && component[index[pair]] == own))
                return true;
            // … or by one step that can be taken in several ways.
            foreach (var (to, ways) in follow[p])
                if (ways > 1 && component[index[to * count + to]] == own)
                    return true;
        }
        return false;
    }

    private static bool Overlap(bool[] a, bool[] b)
    {
        for (var i = 0; i < a.Length; i++)
            if (a[i] && b[i])
                return true;
        return false;
    }
}
