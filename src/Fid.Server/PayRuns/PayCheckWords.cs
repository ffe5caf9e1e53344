using System.Globalization;
using Fid.Acts.PayRuns;
using Fid.Core.Pay;
using NodaTime;

namespace Fid.Server.PayRuns;

/// <summary>The words in which a sheet tells of a run.</summary>
internal sealed class PayCheckWords
{
    private readonly IReadOnlyDictionary<PayNewsKind, string> _news;
    private readonly IReadOnlyDictionary<PayFindingKind, string> _findings;

    private PayCheckWords(
        string title,
        string[] columns,
        IReadOnlyDictionary<PayNewsKind, string> news,
        IReadOnlyDictionary<PayFindingKind, string> findings
    ) => (Title, Columns, _news, _findings) = (title, columns, news, findings);

    public string Title { get; }

    public IReadOnlyList<string> Columns { get; }

    public static PayCheckWords English { get; } =
        new(
            "Pay check",
            [
                "Employee number",
                "Name",
                "What is new",
                "What stands against it",
                "Last time, gross",
                "Gross",
                "Difference",
                "Deductions",
                "Net",
                "Cost to the firm",
                "Department",
                "Cost centre",
                "Checked by",
            ],
            new Dictionary<PayNewsKind, string>
            {
                [PayNewsKind.Starts] = "starts {0}",
                [PayNewsKind.Arrears] = "started {0}, first pay with arrears",
                [PayNewsKind.Ends] = "last day {0}",
                [PayNewsKind.Group] = "pay group from {0}",
                [PayNewsKind.Rate] = "rate from {0}",
                [PayNewsKind.Hours] = "hours from {0}",
                [PayNewsKind.Allowance] = "allowance from {0}",
                [PayNewsKind.SecondJob] = "second job from {0}",
                [PayNewsKind.OneOff] = "paid once, due {0}",
            },
            new Dictionary<PayFindingKind, string>
            {
                [PayFindingKind.NotWorkedOut] = "cannot be worked out",
                [PayFindingKind.NoBankAccount] = "no bank account",
                [PayFindingKind.CutOffMissed] = "cut-off missed, paid {0}",
                [PayFindingKind.NegativeNet] = "net {1}",
                [PayFindingKind.ChangeWaits] = "a change waits for approval",
                [PayFindingKind.OutsideBand] = "outside the band: {1} %",
                [PayFindingKind.UnlikeTemplate] = "the template says {1}",
                [PayFindingKind.StartsAfterPeriod] = "starts after the period",
            }
        );

    public static PayCheckWords German { get; } =
        new(
            "Lohnprüfung",
            [
                "Personalnummer",
                "Name",
                "Was neu ist",
                "Was dagegen steht",
                "Letztes Mal, brutto",
                "Brutto",
                "Unterschied",
                "Abzüge",
                "Netto",
                "Kosten der Firma",
                "Abteilung",
                "Kostenstelle",
                "Geprüft von",
            ],
            new Dictionary<PayNewsKind, string>
            {
                [PayNewsKind.Starts] = "beginnt am {0}",
                [PayNewsKind.Arrears] = "begann am {0}, erster Lohn mit Nachzahlung",
                [PayNewsKind.Ends] = "letzter Tag {0}",
                [PayNewsKind.Group] = "Abrechnungsgruppe ab {0}",
                [PayNewsKind.Rate] = "Satz ab {0}",
                [PayNewsKind.Hours] = "Stunden ab {0}",
                [PayNewsKind.Allowance] = "Zulage ab {0}",
                [PayNewsKind.SecondJob] = "Zweitstelle ab {0}",
                [PayNewsKind.OneOff] = "einmal gezahlt, fällig am {0}",
            },
            new Dictionary<PayFindingKind, string>
            {
                [PayFindingKind.NotWorkedOut] = "lässt sich nicht ausrechnen",
                [PayFindingKind.NoBankAccount] = "kein Bankkonto",
                [PayFindingKind.CutOffMissed] = "Stichtag verpasst, bezahlt am {0}",
                [PayFindingKind.NegativeNet] = "netto {1}",
                [PayFindingKind.ChangeWaits] = "eine Änderung wartet auf Zustimmung",
                [PayFindingKind.OutsideBand] = "außerhalb des Bandes: {1} %",
                [PayFindingKind.UnlikeTemplate] = "die Vorlage sagt {1}",
                [PayFindingKind.StartsAfterPeriod] = "beginnt nach dem Zeitraum",
            }
        );

    public string Of(PayNews news) => Filled(_news[news.Kind], news.Day, null);

    public string Of(PayCheckFinding finding) => Filled(_findings[finding.Kind], finding.Run?.PayDate, finding.Number);

    private static string Filled(string sentence, LocalDate? day, decimal? number) =>
        sentence
            .Replace("{0}", day?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("{1}", number?.ToString("0.##", CultureInfo.InvariantCulture), StringComparison.Ordinal);
}
