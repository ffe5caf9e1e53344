using System.Globalization;
using System.Net;
using System.Text;
using Fid.Core.Checklists;
using Fid.Data;
using NodaTime;
using NodaTime.Text;

namespace Fid.Server.Arrivals;

/// <summary>Arrivals on paper and in a sheet: what a reader sees of them, in words.</summary>
internal static class ArrivalsReport
{
    /// <summary>The column that says what holds a hire up.</summary>
    public const int WideColumn = 8;

    private const string Style = """
        @page { size: A4 landscape; margin: 14mm; @bottom-right { content: counter(page) " / " counter(pages); font: 8pt sans-serif; color: #5d6770; } }
        body { font: 9.5pt sans-serif; color: #1c2733; }
        h1 { font-size: 16pt; margin: 0 0 2mm; }
        h2 { font-size: 11pt; margin: 5mm 0 1mm; break-after: avoid; }
        table { width: 100%; border-collapse: collapse; table-layout: fixed; }
        th { text-align: left; font-weight: normal; color: #5d6770; font-size: 8pt; }
        th, td { border-bottom: .3pt solid #c9c3b4; padding: 1.4mm 2mm 1.4mm 0; vertical-align: top; overflow-wrap: anywhere; }
        tr { break-inside: avoid; }
        .no { color: #9b2c12; font-weight: bold; }
        .soft { color: #5d6770; }
        """;

    public static string Title(Occasion occasion, bool german) =>
        occasion switch
        {
            Occasion.JobChange => german ? "Wer die Stelle wechselt" : "Changes of job",
            Occasion.Leaving => german ? "Wer geht" : "Leavers",
            _ => german ? "Wer kommt" : "Arrivals",
        };

    public static string[] Columns(bool german) =>
        german
            ? ["Tag", "Nummer", "Vorname", "Nachname", "Stelle", "Art", "Standort", "Bereit", "Was aufhält", "Verspätet", "Offen", "Koordination"]
            : ["Day", "Number", "Given name", "Family name", "Job", "Kind", "Site", "Ready", "Held up by", "Late", "Open", "Coordinator"];

    /// <summary>A hire as a row of the sheet.</summary>
    public static IReadOnlyList<string> Cells(ArrivalRow row, bool german) =>
        [
            LocalDatePattern.Iso.Format(row.Start),
            row.Number,
            row.GivenName,
            row.FamilyName,
            row.Job ?? "",
            row.Kind ?? "",
            row.Site ?? "",
            Ready(row, german),
            HeldUp(row, german),
            row.Late.ToString(CultureInfo.InvariantCulture),
            row.Open.ToString(CultureInfo.InvariantCulture),
            row.Coordinator ?? "",
        ];

    /// <summary>Those of a week as a document to print, day by day.</summary>
    /// <param name="monday">The first day of the week.</param>
    public static string Html(ArrivalsResponse arrivals, LocalDate monday, string firm)
    {
        var german = ReaderLanguage.IsGerman;
        var culture = CultureInfo.GetCultureInfo(german ? "de-DE" : "en-IE");
        var rows = arrivals.Hires.Where(r => r.Start >= monday && r.Start < monday.PlusDays(7)).ToList();
        var title = $"{Title(arrivals.Occasion, german)}, {monday.ToString("d MMMM", culture)} – {monday.PlusDays(6).ToString("d MMMM uuuu", culture)}";
        var html = new StringBuilder()
            .Append(CultureInfo.InvariantCulture, $"<!doctype html><html lang=\"{(german ? "de" : "en")}\"><head><meta charset=\"utf-8\">")
            .Append(CultureInfo.InvariantCulture, $"<title>{Text(title)}</title><style>{Style}</style></head><body><h1>{Text(title)}</h1>")
            .Append(CultureInfo.InvariantCulture, $"<p class=\"soft\">{Text(firm)} · {Text(AsOf(arrivals.Today, german, culture))}</p>");
        if (rows.Count == 0)
            html.Append(CultureInfo.InvariantCulture, $"<p>{(german ? "In dieser Woche niemand." : "Nobody in this week.")}</p>");
        foreach (var day in rows.GroupBy(r => r.Start))
            AddDay(html, day.Key.ToString("dddd d MMMM", culture), [.. day], german);
        return html.Append("</body></html>").ToString();
    }

    private static void AddDay(StringBuilder html, string day, List<ArrivalRow> rows, bool german)
    {
        html.Append(CultureInfo.InvariantCulture, $"<h2>{Text(day)} ({rows.Count})</h2><table><thead><tr>");
        string[] heads = german
            ? ["Name", "Stelle", "Standort", "Bereit", "Was aufhält", "Koordination"]
            : ["Name", "Job", "Site", "Ready", "Held up by", "Coordinator"];
        foreach (var head in heads)
            html.Append(CultureInfo.InvariantCulture, $"<th>{Text(head)}</th>");
        html.Append("</tr></thead><tbody>");
        foreach (var row in rows)
            html.Append(CultureInfo.InvariantCulture, $"<tr><td><b>{Text(NameOf(row))}</b><br><span class=\"soft\">{Text(row.Number)}</span></td>")
                .Append(CultureInfo.InvariantCulture, $"<td>{Text(row.Job)}<br><span class=\"soft\">{Text(row.Kind)}</span></td><td>{Text(row.Site)}</td>")
                .Append(CultureInfo.InvariantCulture, $"<td class=\"{(row.Feasible ? "" : "no")}\">{Text(Ready(row, german))}</td>")
                .Append(CultureInfo.InvariantCulture, $"<td>{Text(HeldUp(row, german))}</td><td>{Text(row.Coordinator)}</td></tr>");
        html.Append("</tbody></table>");
    }

    private static string NameOf(ArrivalRow row) => $"{row.GivenName} {row.FamilyName}".Trim() is { Length: > 0 } name ? name : row.Number;

    private static string AsOf(LocalDate today, bool german, CultureInfo culture) => $"{(german ? "Stand" : "as of")} {today.ToString("d MMMM uuuu", culture)}";

    private static string Ready(ArrivalRow row, bool german) =>
        row.Feasible ? $"{row.Readiness.Percent} %"
        : row.SoonestStart is { } soonest ? $"{(german ? "nein, frühestens" : "no, not before")} {LocalDatePattern.Iso.Format(soonest)}"
        : german ? "nein"
        : "no";

    private static string HeldUp(ArrivalRow row, bool german) =>
        row.HoldUp is { } held
            ? $"{held.Name}{(held.Slack < 0 ? german ? $", {-held.Slack} Arbeitstage zu spät" : $", {-held.Slack} working days short" : "")}"
            : "";

    private static string Text(string? text) => WebUtility.HtmlEncode(text ?? "");
}
