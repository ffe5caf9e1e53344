using NodaTime;

namespace Fid.Acts;

/// <summary>How long to wait before something is tried again: twice as long each time, up to a longest pause.</summary>
public static class DoublingPause
{
    // Twice as long so many times is longer than any longest pause.
    private const int MostDoublings = 20;

    /// <param name="doublings">How often the first pause is doubled; at least 0.</param>
    public static Duration After(Duration first, int doublings, Duration longest) =>
        Duration.Min(longest, first * Math.Pow(2, Math.Min(doublings, MostDoublings)));
}
