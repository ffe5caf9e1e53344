using System.Globalization;
using Fid.Core.Checklists;
using Fid.Data;
using Fid.Server.Platform;
using NodaTime;
using NodaTime.Text;
using static Fid.Server.Platform.PaperDocument;

namespace Fid.Server.Arrivals;

/// <summary>Arrivals on paper and in a sheet: what a reader sees of them, in words.</summary>
internal static class ArrivalsReport
{
    /// <summary>The column that says what holds a hire up.</summary>
    public const int WideColumn = 8;

    private const string Style = """
        @page { size: A4 landscape; margin: 14mm; @bottom-right { content: counter(page) " / " counter(pages); font: 8pt sans-serif; color: #5d6770; } }
        body { font: 9.5pt sans-serif; }
        h1 { font-size: 16pt; margin: 0 0 2mm; }
        h2 { font-size: 11pt; margin: 5mm 0 1mm; break-after: avoid; }
        table { table-layout: fixed; }
        th { font-size: 8pt; }
        th, td { padding: 1.4mm 2mm 1.4mm 0; overflow-wrap: anywhere; }
        tr { break-inside: avoid; }
        .no { color: #9b2c12; font-weight: bold; }
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
        var culture = Culture;
        var rows = arrivals.Hires.Where(r => r.Start >= monday && r.Start < monday.PlusDays(7)).ToList();
        var title = $"{Title(arrivals.Occasion, german)}, {monday.ToString("d MMMM", culture)} – {monday.PlusDays(6).ToString("d MMMM uuuu", culture)}";
        var paper = new PaperDocument(title, Style)
            .Add($"<h1>{Text(title)}</h1>")
            .Add($"<p class=\"soft\">{Text(firm)} · {Text(AsOf(arrivals.Today, german, culture))}</p>");
        if (rows.Count == 0)
            paper.Add($"<p>{(german ? "In dieser Woche niemand." : "Nobody in this week.")}</p>");
        foreach (var day in rows.GroupBy(r => r.Start))
            AddDay(paper, day.Key.ToString("dddd d MMMM", culture), [.. day], german);
        return paper.Html();
    }

    private static void AddDay(PaperDocument paper, string day, List<ArrivalRow> rows, bool german)
    {
        paper.Add($"<h2>{Text(day)} ({rows.Count})</h2><table><thead><tr>");
        string[] heads = german
            ? ["Name", "Stelle", "Standort", "Bereit", "Was aufhält", "Koordination"]
            : ["Name", "Job", "Site", "Ready", "Held up by", "Coordinator"];
        foreach (var head in heads)
            paper.Add($"<th>{Text(head)}</th>");
        paper.Add($"</tr></thead><tbody>");
        foreach (var row in rows)
            paper
                .Add($"<tr><td><b>{Text(NameOf(row))}</b><br><span class=\"soft\">{Text(row.Number)}</span></td>")
                .Add($"<td>{Text(row.Job)}<br><span class=\"soft\">{Text(row.Kind)}</span></td><td>{Text(row.Site)}</td>")
                .Add($"<td class=\"{(row.Feasible ? "" : "no")}\">{Text(Ready(row, german))}</td>")
                .Add($"<td>{Text(HeldUp(row, german))}</td><td>{Text(row.Coordinator)}</td></tr>");
        paper.Add($"</tbody></table>");
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
}
