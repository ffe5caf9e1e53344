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
        Field(Section, "allowance", Money, "Allowance a period", "Zulage je Zeitraum", PayOnly).Between(0, 1_000_000),
        Field(Section, "allowance_for", Text, "Allowance for", "Zulage für", PayOnly).When("allowance > 0") with
        {
            RequiredWhen = "allowance > 0",
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
