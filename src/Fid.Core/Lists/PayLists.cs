using Fid.Core.Pay;
using static Fid.Core.Lists.ColumnType;

namespace Fid.Core.Lists;

/// <summary>What people are paid.</summary>
internal static class PayLists
{
    public static IReadOnlyList<ListDefinition> All { get; } =
    [
        new(
            "payGroups",
            ListGroup.Pay,
            new("Pay groups", "Abrechnungsgruppen"),
            new("People who are paid together: periods, pay days and cut-offs.", "Wer zusammen bezahlt wird: Zeiträume, Zahltage und Annahmeschluss."),
            [
                new(
                    "every",
                    Choice,
                    new("Paid every", "Bezahlt alle"),
                    new("How long a pay period is.", "Wie lang ein Abrechnungszeitraum ist."),
                    Required: true,
                    Default: "month",
                    Options:
                    [
                        new("week", new("week", "Woche")),
                        new("fortnight", new("fortnight", "zwei Wochen")),
                        new("fourWeeks", new("four weeks", "vier Wochen")),
                        new("halfMonth", new("half month", "halben Monat")),
                        new("month", new("month", "Monat")),
                        new("year", new("year", "Jahr")),
                    ]
                ),
                new(
                    "first_period_start",
                    Date,
                    new("First period begins", "Erster Zeitraum beginnt"),
                    new("A first day; needed for weeks, fortnights and four weeks.", "Ein erster Tag; nötig bei Wochen, zwei und vier Wochen.")
                ),
                new(
                    "pay_days_after_end",
                    Whole,
                    new("Pay day, days after the end", "Zahltag, Tage nach Ende"),
                    new(
                        "Days from the last day of a period to pay day, which then moves back to a working day.",
                        "Tage vom letzten Tag des Zeitraums zum Zahltag, der dann auf einen Arbeitstag vorrückt."
                    ),
                    Required: true,
                    Min: -31,
                    Max: 62,
                    Default: "0"
                ),
                new(
                    "cut_off_working_days",
                    Whole,
                    new("Cut-off, working days before", "Annahmeschluss, Arbeitstage vorher"),
                    new("Working days from the cut-off to pay day.", "Arbeitstage vom Annahmeschluss zum Zahltag."),
                    Required: true,
                    Max: 60,
                    Default: "4"
                ),
                new(
                    "calendar",
                    Entry,
                    new("Holiday calendar", "Feiertagskalender"),
                    new("The working days of payroll and bank.", "Die Arbeitstage von Lohnbüro und Bank."),
                    Required: true,
                    List: "calendars"
                ),
                new("currency", Currency, new("Currency", "Währung"), new("Three letters, such as EUR.", "Drei Buchstaben, etwa EUR.")),
                new(
                    "part_by",
                    Choice,
                    new("Part of a period by", "Teil eines Zeitraums nach"),
                    new(
                        "By what the first period is paid in part. Whoever is paid by the hour and has a shift pattern is paid by rostered hours.",
                        "Wonach der erste Zeitraum anteilig bezahlt wird. Wer pro Stunde bezahlt wird und ein Schichtmuster hat: nach Dienstplan."
                    ),
                    Default: "workingDays",
                    Options:
                    [
                        new("workingDays", new("working days", "Arbeitstagen")),
                        new("calendarDays", new("calendar days", "Kalendertagen")),
                        new("annual260", new("260 working days a year", "260 Arbeitstagen im Jahr")),
                    ]
                ),
            ],
            NeededToOpen: true
        ),
        new(
            "payComponents",
            ListGroup.Pay,
            new("Pay components", "Lohnarten"),
            new("What makes up pay: earnings, deductions and the employer's costs.", "Woraus Lohn besteht: Bezüge, Abzüge und Arbeitgeberkosten."),
            [
                new(
                    "kind",
                    Choice,
                    new("Kind", "Art"),
                    new(
                        "Whether it is earned, taken off, or paid by the employer beside.",
                        "Ob es verdient, abgezogen oder vom Arbeitgeber daneben gezahlt wird."
                    ),
                    Required: true,
                    Default: "earning",
                    Options:
                    [
                        new("earning", new("earning", "Bezug")),
                        new("deduction", new("deduction", "Abzug")),
                        new("employerCost", new("employer's cost", "Arbeitgeberkosten")),
                    ]
                ),
                new(
                    "stands_for",
                    Choice,
                    new("Stands for", "Steht für"),
                    new(
                        "What each record says is paid; the amount is then only an example.",
                        "Was in jeder Akte als Entgelt steht; der Betrag ist dann nur ein Beispiel."
                    ),
                    Options:
                    [
                        new(PayComponentEntry.BasePay, new("base pay", "Grundvergütung")),
                        new(PayComponentEntry.Standing[PayElementKind.Allowance], new("allowances", "Zulagen")),
                        new(PayComponentEntry.Standing[PayElementKind.SecondJob], new("second jobs", "Zweitstellen")),
                        new(PayComponentEntry.Standing[PayElementKind.OneOff], new("one-off payments", "Einmalzahlungen")),
                    ]
                ),
                new("amount", Number, new("Amount", "Betrag"), new("A fixed amount a period.", "Ein fester Betrag je Zeitraum."), Min: -1_000_000_000),
                new(
                    "percent",
                    Number,
                    new("Percentage", "Prozent"),
                    new("Of other components; 5 is 5 %.", "Von anderen Lohnarten; 5 ist 5 %."),
                    Min: -1000,
                    Max: 1000
                ),
                new(
                    "of",
                    Entries,
                    new("Of", "Von"),
                    new(
                        "Codes of the components it is worked out from; deductions are taken off.",
                        "Codes der Lohnarten, aus denen es berechnet wird; Abzüge gehen ab."
                    ),
                    List: "payComponents"
                ),
                new("floor", Number, new("Above", "Über"), new("What lies up to here does not count.", "Was bis hier reicht, zählt nicht.")),
                new("cap", Number, new("Up to", "Bis"), new("What lies above here does not count.", "Was darüber liegt, zählt nicht.")),
                new(
                    "brackets",
                    Brackets,
                    new("Brackets", "Stufen"),
                    new("Percentages with their upper ends: 0% to 12000; 18% to 30000; 32%.", "Prozente mit ihrem oberen Ende: 0% to 12000; 18% to 30000; 32%.")
                ),
                new(
                    "basis",
                    Choice,
                    new("Brackets are for a", "Stufen gelten je"),
                    new("A year or a pay period.", "Jahr oder Zeitraum."),
                    Options: [new("annual", new("year", "Jahr")), new("period", new("period", "Zeitraum"))]
                ),
                new(
                    "formula",
                    Formula,
                    new("Formula", "Formel"),
                    new("Over the codes of other components, such as BASE * 0.04.", "Über die Codes anderer Lohnarten, etwa BASE * 0.04.")
                ),
                new(
                    "groups",
                    Entries,
                    new("For pay groups", "Für Abrechnungsgruppen"),
                    new("Codes of the pay groups it is for; empty for all.", "Codes der Gruppen, für die es gilt; leer für alle."),
                    List: "payGroups"
                ),
                new("paid_from", Date, new("Paid from", "Gezahlt ab"), new("The first day; empty for always.", "Der erste Tag; leer für immer.")),
                new("paid_to", Date, new("Paid to", "Gezahlt bis"), new("The last day; empty for no end.", "Der letzte Tag; leer für kein Ende.")),
            ]
        ),
    ];
}
