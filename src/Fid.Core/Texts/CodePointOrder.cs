namespace Fid.Core.Texts;

/// <summary>Texts by their code points, whatever the culture. UTF-16, which .NET compares, puts what lies beyond the first 65,536 code points
/// before the last 8,192 of those: an emoji before a full-width letter.</summary>
public sealed class CodePointOrder : IComparer<string>
{
    private CodePointOrder() { }

    /// <summary>The order.</summary>
    public static CodePointOrder Instance { get; } = new();

    /// <inheritdoc/>
    public int Compare(string? x, string? y)
    {
        if (x is null || y is null)
            return string.CompareOrdinal(x, y);
        var same = x.AsSpan().CommonPrefixLength(y);
        if (same == x.Length || same == y.Length)
            return x.Length - y.Length;
        var (a, b) = (x[same], y[same]);
        // Only a surrogate against one of those above them stands the other way round.
        return char.IsSurrogate(a) == char.IsSurrogate(b) || (a < '\uD800' || b < '\uD800') ? a - b : b - a;
    }
}
