namespace Fid.Data;

/// <summary>Patterns of LIKE, in PostgreSQL.</summary>
public static class LikePattern
{
    /// <summary>A text as a part of a pattern that only the text itself matches.</summary>
    public static string Escape(string text) =>
        text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal);
}
