using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>What the person is paid, and how.</summary>
internal static class PayFields
{
    private const string Section = "pay";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Entry(Section, "pay_group", "payGroups", "Pay group", "Abrechnungsgruppe", ForPay).Needed("prepare"),
        Field(Section, "paid_by", Choice, "Paid", "Bezahlt", ForPay)
            .Of(
                ("hour", "by the hour", "pro Stunde"),
                ("day", "by the day", "pro Tag"),
                ("week", "by the week", "pro Woche"),
                ("month", "by the month", "pro Monat"),
                ("year", "by the year", "pro Jahr")
            )
            .Needed("prepare"),
        Field(Section, "pay_rate", Money, "Pay rate", "Satz", ForPay).Needed("prepare").Between(0, 1_000_000_000),
        Field(Section, "weekly_hours", Number, "Weekly hours", "Wochenstunden", ForPay).Needed("prepare").Between(0.01m, 168),
        Field(Section, "hours_arise", Choice, "Hours are", "Stunden sind", ForPay)
            .Of(("fixed", "fixed", "fest"), ("rostered", "as rostered", "nach Dienstplan"), ("clocked", "as clocked", "nach Zeiterfassung")),
        Rows(
            Section,
            "pay_elements",
            "Pay beside base pay",
            "Entgelt neben dem Grundentgelt",
            PayOnly,
            Field(Section, "kind", Choice, "What", "Was", Same)
                .Of(
                    ("allowance", "an allowance", "eine Zulage"),
                    ("secondJob", "a second job", "eine Zweitstelle"),
                    ("oneOff", "a one-off payment", "eine Einmalzahlung")
                )
                .Always(),
            Field(Section, "amount", Money, "Amount", "Betrag", Same).Between(-1_000_000, 1_000_000).Always(),
            Field(Section, "note", Text, "For", "Für", Same),
            Entry(Section, "job", "jobs", "Job", "Stelle", Same),
            Field(Section, "stated", Choice, "The amount is", "Der Betrag ist", Same)
                .Of(
                    ("flat", "a rate an hour", "ein Satz pro Stunde"),
                    ("plusPercent", "percent above the main rate", "Prozent über dem Hauptsatz"),
                    ("plusAmount", "an hour above the main rate", "pro Stunde über dem Hauptsatz")
                ),
            Field(Section, "hours", Number, "Hours a week", "Wochenstunden", Same).Between(0.01m, 168),
            Entry(Section, "cost_centre", "costCentres", "Cost centre", "Kostenstelle", Same),
            Field(Section, "from", Date, "From", "Von", Same),
            Field(Section, "until", Date, "Until", "Bis", Same),
            Field(Section, "due", Date, "Due on", "Fällig am", Same)
        ) with
        {
            RowKey = "kind",
            Dates = new RowDates("from", "until"),
        },
        Rows(
            Section,
            "cost_split",
            "Cost split",
            "Kostenaufteilung",
            PayOnly,
            Entry(Section, "cost_centre", "costCentres", "Cost centre", "Kostenstelle", Same).Always(),
            Field(Section, "percent", Number, "Percent", "Prozent", Same).Between(0.01m, 100).Always()
        ) with
        {
            RowKey = "cost_centre",
        },
        Field(Section, "payment_method", Choice, "Paid out", "Auszahlung", PayOnly)
            .OfPerson()
            .Of(("transfer", "by bank transfer", "per Überweisung"), ("cheque", "by cheque", "per Scheck"), ("cash", "in cash", "bar")),
        Field(Section, "payslip_by", Choice, "Payslip", "Abrechnung", PayOnly)
            .OfPerson()
            .Of(("email", "by e-mail", "per E-Mail"), ("post", "by post", "per Post"), ("hand", "by hand", "persönlich")),
        Field(Section, "bank_holder", Text, "Account holder", "Kontoinhaber", PayOnly).OfPerson(),
        Field(Section, "bank_account", FieldType.Iban, "Bank account (IBAN)", "Bankkonto (IBAN)", OwnPay).OfPerson().Sealed(),
        Field(Section, "pension", YesNo, "In the pension scheme", "In der Betriebsrente", PayOnly),
        Field(Section, "pension_percent", Number, "Own pension contribution, %", "Eigener Rentenbeitrag, %", PayOnly).Between(0, 100).When("pension"),
        Field(Section, "pay_note", LongText, "Note for payroll", "Hinweis für die Abrechnung", PayOnly),
    ];
}
