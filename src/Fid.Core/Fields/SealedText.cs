using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>
/// How the value of a sensitive field is stored and shown: sealed, as "sealed:", a keyed hash of 64 hexadecimal digits by which
/// equal values are found, a colon and what only the key ring opens. The user who reads a record gets <see cref="Mask"/> in its place.
/// </summary>
public static class SealedText
{
    /// <summary>What is shown of a sealed value, however long it is.</summary>
    public const string Mask = "••••••";

    private const string Prefix = "sealed:";
    private const int HashDigits = 64;

    private static readonly JsonElement MaskValue = JsonSerializer.SerializeToElement(Mask);

    /// <summary>A sealed value as it is stored.</summary>
    public static JsonElement Write(string hash, string closed) => JsonSerializer.SerializeToElement($"{Prefix}{hash}:{closed}");

    /// <summary>Whether a value is sealed.</summary>
    public static bool IsSealed(JsonElement value) => value.ValueKind == JsonValueKind.String && IsSealed(value.GetString()!);

    /// <summary>Whether a text is how a sealed value is stored.</summary>
    public static bool IsSealed(string text) =>
        text.Length > 72 && text.StartsWith(Prefix, StringComparison.Ordinal) && text[Prefix.Length + HashDigits] == ':';

    /// <summary>What only the key ring opens. Throws where the value is not sealed.</summary>
    public static string Closed(JsonElement value) =>
        IsSealed(value) ? value.GetString()![(Prefix.Length + HashDigits + 1)..] : throw new ArgumentException("The value is not sealed.", nameof(value));

    /// <summary>The part of a sealed value that is equal for equal values of a field; any other value as it is.</summary>
    public static string Comparable(JsonElement value) => IsSealed(value) ? Start(value.GetString()!.Substring(Prefix.Length, HashDigits)) : value.GetRawText();

    /// <summary>What every sealed value with a hash begins with.</summary>
    public static string Start(string hash) => $"{Prefix}{hash}:";

    /// <summary>The mask in place of a sealed value; any other value as it is.</summary>
    public static JsonElement Shown(JsonElement value) => IsSealed(value) ? MaskValue : value;

    /// <summary>Whether a value is the mask.</summary>
    public static bool IsMask(JsonElement value) => value.ValueKind == JsonValueKind.String && value.ValueEquals(Mask);
}
