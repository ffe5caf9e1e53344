using static Fid.Core.Fields.FieldOwner;
using static Fid.Core.Fields.FieldType;

namespace Fid.Core.Fields;

/// <summary>The fields that ship with Fid.</summary>
public static class ShippedFields
{
    private static readonly FieldOption[] Kinds =
    [
        new("permanent", "permanent", "unbefristet"), new("seasonal", "seasonal", "Saisonkraft"),
        new("fixedTerm", "fixed term", "befristet"), new("trainee", "trainee", "in Ausbildung"),
    ];

    private static readonly FieldOption[] PaidBy =
    [
        new("hour", "by the hour", "pro Stunde"), new("day", "by the day", "pro Tag"),
        new("month", "by the month", "pro Monat"), new("year", "by the year", "pro Jahr"),
    ];

    /// <summary>All fields, in the order they are shown.</summary>
    public static IReadOnlyList<RecordField> All { get; } =
    [
        new("given_name", FieldSection.Person, Text, FieldOwner.Person, "Given name", "Vorname", RequiredFrom: "prepare"),
        new("family_name", FieldSection.Person, Text, FieldOwner.Person, "Family name", "Nachname", RequiredFrom: "prepare"),
        new("known_as", FieldSection.Person, Text, FieldOwner.Person, "Known as", "Rufname"),
        new("birth_date", FieldSection.Person, Date, FieldOwner.Person, "Date of birth", "Geburtsdatum", RequiredFrom: "arrive"),
        new("nationality", FieldSection.Person, Text, FieldOwner.Person, "Nationality", "Staatsangehörigkeit"),
        new("languages", FieldSection.Person, Text, FieldOwner.Person, "Languages spoken", "Sprachen"),

        new("email", FieldSection.Contact, Email, FieldOwner.Person, "E-mail", "E-Mail", RequiredFrom: "prepare"),
        new("phone", FieldSection.Contact, Phone, FieldOwner.Person, "Telephone", "Telefon", RequiredFrom: "arrive"),
        new("street", FieldSection.Contact, Text, FieldOwner.Person, "Street", "Straße"),
        new("town", FieldSection.Contact, Text, FieldOwner.Person, "Town", "Ort"),
        new("postcode", FieldSection.Contact, Text, FieldOwner.Person, "Postcode", "Postleitzahl"),
        new("emergency_name", FieldSection.Contact, Text, FieldOwner.Person, "Emergency contact", "Notfallkontakt", RequiredFrom: "arrive"),
        new("emergency_phone", FieldSection.Contact, Phone, FieldOwner.Person, "Emergency telephone", "Notfalltelefon", RequiredFrom: "arrive"),

        new("job", FieldSection.Work, ListEntry, Employment, "Job", "Stelle", List: "jobs", RequiredFrom: "prepare"),
        new("department", FieldSection.Work, ListEntry, Employment, "Department", "Abteilung", List: "departments", RequiredFrom: "prepare"),
        new("site", FieldSection.Work, ListEntry, Employment, "Site", "Standort", List: "sites", RequiredFrom: "prepare"),
        new("manager", FieldSection.Work, FieldType.Person, Employment, "Manager", "Führungskraft", RequiredFrom: "prepare"),
        new("kind", FieldSection.Work, Choice, Employment, "Kind", "Art", Options: Kinds, RequiredFrom: "prepare"),
        new("start_date", FieldSection.Work, Date, Employment, "Start", "Beginn", RequiredFrom: "prepare", ReadOnly: true),
        new("end_date", FieldSection.Work, Date, Employment, "End", "Ende"),
        new("cost_centre", FieldSection.Work, ListEntry, Employment, "Cost centre", "Kostenstelle", List: "costCentres", RequiredFrom: "prepare"),

        new("pay_group", FieldSection.Pay, ListEntry, Employment, "Pay group", "Abrechnungsgruppe", List: "payGroups", RequiredFrom: "prepare"),
        new("paid_by", FieldSection.Pay, Choice, Employment, "Paid", "Bezahlt", Options: PaidBy, RequiredFrom: "prepare"),
        new("pay_rate", FieldSection.Pay, Money, Employment, "Pay rate", "Satz", RequiredFrom: "prepare"),
        new("weekly_hours", FieldSection.Pay, Number, Employment, "Weekly hours", "Wochenstunden", RequiredFrom: "prepare", Min: 0.01m, Max: 168),

        new("badge", FieldSection.TimeClock, Badge, Employment, "Badge", "Ausweis", RequiredFrom: "arrive"),
        new("clock_device", FieldSection.TimeClock, ListEntry, Employment, "Clock device", "Terminal", List: "clockDevices", RequiredFrom: "arrive"),
        new("shift_pattern", FieldSection.TimeClock, ListEntry, Employment, "Shift pattern", "Schichtmuster", List: "shiftPatterns", RequiredFrom: "arrive"),
        new("holiday_calendar", FieldSection.TimeClock, ListEntry, Employment, "Holiday calendar", "Feiertagskalender", List: "calendars", RequiredFrom: "prepare"),
    ];

    private static readonly Dictionary<string, RecordField> ByKey = All.ToDictionary(f => f.Key, StringComparer.Ordinal);

    /// <summary>The field with a key, or null.</summary>
    public static RecordField? Find(string key) => ByKey.GetValueOrDefault(key);
}
