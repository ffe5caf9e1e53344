using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace Fid.Data;

/// <summary>The language of the user who reads, as their request told it: what the firm enters can be in both.</summary>
public static class ReaderLanguage
{
    /// <summary>Its two letters (ISO 639-1): one of those the interface speaks.</summary>
    public static string Code => IsGerman ? "de" : "en";

    public static bool IsGerman => CultureInfo.CurrentUICulture.TwoLetterISOLanguageName == "de";

    /// <summary>A name or text in the reader's language; the other where there is only that.</summary>
    [return: NotNullIfNotNull(nameof(text))]
    public static string? Choose(string? text, string? german) =>
        IsGerman && !string.IsNullOrEmpty(german) ? german
        : string.IsNullOrEmpty(text) ? german ?? text
        : text;
}
