using System.Globalization;

namespace Fid.Data;

/// <summary>The language of whoever reads, as their request told it: what the firm enters can be in both.</summary>
public static class ReaderLanguage
{
    public static bool IsGerman => CultureInfo.CurrentUICulture.TwoLetterISOLanguageName == "de";

    /// <summary>A name in the reader's language; the first where there is none in German.</summary>
    public static string Name(string name, string? german) => IsGerman && !string.IsNullOrEmpty(german) ? german : name;
}
