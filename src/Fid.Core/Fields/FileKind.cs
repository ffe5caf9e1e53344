namespace Fid.Core.Fields;

/// <summary>What a file is, by its first bytes: what a sender calls it counts for nothing.</summary>
public static class FileKind
{
    /// <summary>The media type of whatever is not known: to be downloaded, never shown.</summary>
    public const string Unknown = "application/octet-stream";

    private static readonly (string MediaType, byte[] Start, int At)[] Signatures =
    [
        ("image/png", [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A], 0),
        ("image/jpeg", [0xFF, 0xD8, 0xFF], 0),
        ("image/gif", "GIF8"u8.ToArray(), 0),
        ("image/webp", "WEBP"u8.ToArray(), 8),
        ("application/pdf", "%PDF-"u8.ToArray(), 0),
    ];

    /// <summary>The media type of a file: of the images and documents a browser shows safely, or <see cref="Unknown"/>.</summary>
    public static string Of(ReadOnlySpan<byte> content)
    {
        foreach (var (mediaType, start, at) in Signatures)
            if (content.Length >= at + start.Length && content.Slice(at, start.Length).SequenceEqual(start)) return mediaType;
        return Unknown;
    }
}
