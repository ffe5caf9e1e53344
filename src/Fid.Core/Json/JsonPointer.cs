namespace Fid.Core.Json;

/// <summary>Ways into a question, as RFC 6901 writes them.</summary>
public static class JsonPointer
{
    /// <summary>A name as a part of a way (section 3).</summary>
    public static string Escape(string name) => name.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal);
}
