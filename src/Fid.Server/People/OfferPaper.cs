using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Server.Platform;
using NodaTime;
using static Fid.Server.Platform.PaperDocument;

namespace Fid.Server.People;

/// <summary>An offer on paper, its forms side by side, in the reader's language. What is the firm's own business stays off it.</summary>
internal static class OfferPaper
{
    private const string Style = """
        @page { size: A4; margin: 20mm; }
        body { font: 10.5pt sans-serif; }
        h1 { font-size: 17pt; margin: 12mm 0 2mm; }
        table { margin-top: 6mm; }
        td, thead th { text-align: right; }
        th, td { padding: 1.8mm 2mm 1.8mm 0; }
        .sum th, .sum td { font-weight: bold; color: #1c2733; border-bottom: 1pt solid #1c2733; }
        """;

    public static string Html(OfferResponse offer, Firm firm, LocalDate today)
    {
        var german = ReaderLanguage.IsGerman;
        var title = german ? $"Angebot für {offer.Name}" : $"Offer to {offer.Name}";
        var paper = new PaperDocument(title, Style).Add($"<p class=\"soft\">{Text(firm.Name)}, {Text(Day(today))}</p><h1>{Text(title)}</h1><table>");
        if (offer.Forms.Length > 1)
            Row("thead", "", [.. offer.Forms.Select((_, i) => $"{(char)('A' + i)}")]);
        Row("", german ? "Beginn" : "Start", Each(f => Day(f.Start)));
        Row("", german ? "Lohn im Jahr" : "Pay a year", Each(f => Money(f.Rate?.Stated.Year)));
        Row("", german ? "Lohn in der Stunde" : "Pay an hour", Each(f => Money(f.Rate?.Stated.Hour)));
        Row("", german ? "Erster Zahltag" : "First pay day", Each(f => f.FirstPay is { } first ? Day(first.Periods[^1].PayDate) : "–"));
        Row("", german ? "Erster Lohn, brutto" : "First pay, gross", Each(f => Money(f.FirstPay?.Slip?.Gross)));
        Row("", german ? "Erster Lohn, netto" : "First pay, net", Each(f => Money(f.FirstPay?.Slip?.Net)));
        foreach (var (code, name, kind) in Components(offer))
            Row("", name, Each(f => Line(f, code) is { } amount ? (kind == ComponentKind.Deduction ? "− " : "") + Money(amount) : "–"));
        Row("sum", german ? "Danach je Zeitraum, netto" : "From then on, net a period", Each(f => Money(f.WholePeriod?.Net)));
        return paper.Add($"</table>").Html();

        string[] Each(Func<OfferedPay, string> of) => [.. offer.Forms.Select(of)];

        string Day(LocalDate day) => day.ToString("d MMMM uuuu", Culture);

        string Money(decimal? amount) => amount is { } there ? $"{there.ToString("N2", Culture)} {firm.Currency}" : "–";

        void Row(string kind, string name, string[] cells)
        {
            paper.Add($"<tr class=\"{kind}\"><th>{Text(name)}</th>");
            foreach (var cell in cells)
                paper.Add($"<td>{Text(cell)}</td>");
            paper.Add($"</tr>");
        }
    }

    private static IEnumerable<(string Code, string Name, ComponentKind Kind)> Components(OfferResponse offer) =>
        offer.Forms.SelectMany(f => f.WholePeriod?.Lines ?? []).Select(l => (l.Code, l.Name, l.Kind)).Distinct();

    private static decimal? Line(OfferedPay form, string code) => form.WholePeriod?.Lines.FirstOrDefault(l => l.Code == code)?.Amount;
}
