using System.Globalization;
using System.Net;
using System.Text;
using Fid.Data;

namespace Fid.Server.Platform;

/// <summary>A document to be printed, in the reader's language: HTML that names nothing outside itself.</summary>
internal sealed class PaperDocument
{
    private const string Common = """
        body { color: #1c2733; }
        table { width: 100%; border-collapse: collapse; }
        th { text-align: left; font-weight: normal; color: #5d6770; }
        th, td { border-bottom: .3pt solid #c9c3b4; vertical-align: top; }
        .soft { color: #5d6770; }
        """;

    private readonly StringBuilder _html = new();

    /// <param name="style">What it looks like beyond what all documents do.</param>
    public PaperDocument(string title, string style) =>
        Add($"<!doctype html><html lang=\"{(ReaderLanguage.IsGerman ? "de" : "en")}\"><head><meta charset=\"utf-8\">")
            .Add($"<title>{Text(title)}</title><style>{Common}{style}</style></head><body>");

    /// <summary>How days and numbers are written.</summary>
    public static CultureInfo Culture => CultureInfo.GetCultureInfo(ReaderLanguage.IsGerman ? "de-DE" : "en-IE");

    /// <summary>Adds HTML as it stands: what comes from outside goes through <see cref="Text"/>.</summary>
    public PaperDocument Add(FormattableString html)
    {
        _html.Append(html.ToString(CultureInfo.InvariantCulture));
        return this;
    }

    /// <summary>The whole of it.</summary>
    public string Html() => $"{_html}</body></html>";

    /// <summary>A text as it is written in HTML.</summary>
    public static string Text(string? text) => WebUtility.HtmlEncode(text ?? "");
}
