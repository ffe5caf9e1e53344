using CostSplitRows = Fid.Core.Pay.CostSplitRows;
using PayElementRows = Fid.Core.Pay.PayElementRows;
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
            PayElementRows.Field,
            "Pay beside base pay",
            "Entgelt neben dem Grundentgelt",
            PayOnly,
            Field(Section, PayElementRows.Kind, Choice, "What", "Was", Same)
                .Of(
                    (PayElementRows.Allowance, "an allowance", "eine Zulage"),
                    (PayElementRows.SecondJob, "a second job", "eine Zweitstelle"),
                    (PayElementRows.OneOff, "a one-off payment", "eine Einmalzahlung")
                )
                .Always(),
            Field(Section, PayElementRows.Amount, Money, "Amount", "Betrag", Same).Between(-1_000_000, 1_000_000).Always(),
            Field(Section, PayElementRows.Note, Text, "For", "Für", Same),
            Entry(Section, PayElementRows.Job, "jobs", "Job", "Stelle", Same),
            Field(Section, PayElementRows.Stated, Choice, "The amount is", "Der Betrag ist", Same)
                .Of(
                    ("flat", "a rate an hour", "ein Satz pro Stunde"),
                    ("plusPercent", "percent above the main rate", "Prozent über dem Hauptsatz"),
                    ("plusAmount", "an hour above the main rate", "pro Stunde über dem Hauptsatz")
                ),
            Field(Section, PayElementRows.Hours, Number, "Hours a week", "Wochenstunden", Same).Between(0.01m, 168),
            Entry(Section, PayElementRows.CostCentre, "costCentres", "Cost centre", "Kostenstelle", Same),
            Field(Section, PayElementRows.From, Date, "From", "Von", Same),
            Field(Section, PayElementRows.Until, Date, "Until", "Bis", Same),
            Field(Section, PayElementRows.Due, Date, "Due on", "Fällig am", Same)
        ) with
        {
            RowKey = PayElementRows.Kind,
            Dates = new RowDates(PayElementRows.From, PayElementRows.Until),
        },
        Rows(
            Section,
            CostSplitRows.Field,
            "Cost split",
            "Kostenaufteilung",
            PayOnly,
            Entry(Section, CostSplitRows.CostCentre, "costCentres", "Cost centre", "Kostenstelle", Same).Always(),
            Field(Section, CostSplitRows.Percent, Number, "Percent", "Prozent", Same).Between(0.01m, 100).Always()
        ) with
        {
            RowKey = CostSplitRows.CostCentre,
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
