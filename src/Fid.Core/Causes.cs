namespace Fid.Core;

/// <summary>
/// Tells what is wrong by itself from what only follows from something else that is wrong: whoever mends the cause may find the rest
/// mended with it.
/// </summary>
public static class Causes
{
    /// <summary>The place at fault that another place's fault follows from.</summary>
    /// <param name="place">The place whose fault is looked at.</param>
    /// <param name="wrong">The places at fault.</param>
    /// <param name="reads">The places that one is worked out from or judged by.</param>
    /// <returns>
    /// The nearest place of <paramref name="wrong"/> that <paramref name="place"/> reads, itself or through others; null where it reads
    /// none. Of places that read each other none follows from the other.
    /// </returns>
    public static string? Of(string place, IReadOnlySet<string> wrong, Func<string, IEnumerable<string>> reads) =>
        wrong.Count == 0 ? null : Reached(place, reads).FirstOrDefault(p => wrong.Contains(p) && !Reached(p, reads).Contains(place));

    // All that a place reads, itself or through others, the nearest first.
    private static IEnumerable<string> Reached(string place, Func<string, IEnumerable<string>> reads)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal) { place };
        var next = new Queue<string>([place]);
        while (next.TryDequeue(out var at))
            foreach (var read in reads(at))
            {
                if (read == place)
                    yield return read;
                if (!seen.Add(read))
                    continue;
                next.Enqueue(read);
                yield return read;
            }
    }
}
