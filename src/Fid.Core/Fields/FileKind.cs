namespace Fid.Core.Fields;

/// <summary>What a file is, by what is in it: what a sender calls it counts for nothing.</summary>
public static class FileKind
{
    /// <summary>The media type of whatever is not known: to be downloaded, never shown.</summary>
    public const string Unknown = "application/octet-stream";

    private static readonly (string MediaType, FileGroup Group, byte[] Start, int At)[] Signatures =
    [
        ("image/png", FileGroup.Picture, [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A], 0),
        ("image/jpeg", FileGroup.Picture, [0xFF, 0xD8, 0xFF], 0),
        ("image/gif", FileGroup.Picture, "GIF8"u8.ToArray(), 0),
        ("image/webp", FileGroup.Picture, "WEBP"u8.ToArray(), 8),
        ("application/pdf", FileGroup.Pdf, "%PDF-"u8.ToArray(), 0),
    ];

    /// <summary>The media type of a file: of the images and documents a browser shows safely, or <see cref="Unknown"/>.</summary>
    public static string Of(ReadOnlySpan<byte> content) => Signature(content)?.MediaType ?? Unknown;

    /// <summary>The group a file belongs to; null where it is in none.</summary>
    public static FileGroup? GroupOf(ReadOnlySpan<byte> content) => Signature(content)?.Group ?? (IsDocument(content) ? FileGroup.Document : null);

    private static (string MediaType, FileGroup Group)? Signature(ReadOnlySpan<byte> content)
    {
        foreach (var (mediaType, group, start, at) in Signatures)
            if (content.Length >= at + start.Length && content.Slice(at, start.Length).SequenceEqual(start))
                return (mediaType, group);
        return null;
    }

    // Archives both: Office Open XML (ISO/IEC 29500) names its parts in [Content_Types].xml; an OpenDocument (ISO/IEC 26300) begins with
    // its media type, stored as it is under the name "mimetype".
    private static bool IsDocument(ReadOnlySpan<byte> content) =>
        content.StartsWith("PK\x03\x04"u8)
        && (
            content.IndexOf("[Content_Types].xml"u8) >= 0
            || (content.Length > NameOfFirst && content[NameOfFirst..].StartsWith("mimetypeapplication/vnd.oasis.opendocument."u8))
        );

    // Where an archive's first part says its name.
    private const int NameOfFirst = 30;
}

/// <summary>The groups of files a field can take.</summary>
public enum FileGroup
{
    /// <summary>A picture: PNG, JPEG, GIF or WebP.</summary>
    Picture,

    /// <summary>A PDF.</summary>
    Pdf,

    /// <summary>A written document, a table or slides, as Office Open XML or OpenDocument.</summary>
    Document,
}
