namespace Fid.Core.Lists;

/// <summary>Other words by which people head the columns of their sheets. Only whole headers count: what a word means is known,
/// not guessed from its letters.</summary>
internal static class ColumnWords
{
    private static readonly Dictionary<string, string[]> Of = new(StringComparer.Ordinal)
    {
        ["role_template"] = ["Template", "Role", "Onboarding template", "Vorlage", "Rolle"],
        ["given_name"] = ["First", "First name", "Given", "Forename", "Forenames", "First names", "Given names", "Vornamen", "Erster Vorname"],
        ["family_name"] = ["Last", "Last name", "Surname", "Family", "Second name", "Zuname", "Familienname", "Name der Familie"],
        ["known_as"] = ["Preferred name", "Nickname", "Goes by", "Called", "Spitzname", "Genannt"],
        ["former_name"] = ["Maiden name", "Previous name", "Birth name", "Geburtsname", "Mädchenname"],
        ["birth_date"] = ["Birthday", "Born", "Born on", "DOB", "Birth date", "Birthdate", "Geburtstag", "Geboren", "Geboren am", "Geb. am"],
        ["birth_place"] = ["Birthplace", "Born in", "Geboren in"],
        ["nationality"] = ["Citizenship", "Nationalität", "Staatsbürgerschaft"],
        ["email"] = ["Mail", "Email address", "E-mail address", "Private email", "Personal email", "Mailadresse", "E-Mail-Adresse", "E-Mail privat"],
        ["phone"] = ["Phone", "Tel", "Phone number", "Telephone number", "Home phone", "Telefonnummer", "Festnetz", "Rufnummer"],
        ["mobile"] = ["Mobile", "Cell", "Cell phone", "Mobile number", "Mobile phone", "Handy", "Handynummer", "Mobilnummer", "Mobil"],
        ["work_email"] = ["Work email", "Office email", "Business email", "Company email", "Dienstliche E-Mail", "Firmenmail"],
        ["work_phone"] = ["Work phone", "Office phone", "Extension", "Durchwahl", "Diensttelefon"],
        ["street"] = ["Address", "Street address", "Address line 1", "Road", "Adresse", "Anschrift", "Straße und Hausnummer"],
        ["address_line"] = ["Address line 2", "Adresszeile 2"],
        ["town"] = ["City", "Place of residence", "Stadt", "Wohnort"],
        ["region"] = ["County", "State", "Province", "Bundesland"],
        ["postcode"] = ["Postal code", "Zip", "Zip code", "Post code", "PLZ"],
        ["emergency_name"] = ["In case of emergency", "Next of kin", "Im Notfall"],
        ["job"] = ["Position", "Occupation", "Post", "Tätigkeit", "Position im Betrieb", "Beruf"],
        ["department"] = ["Dept", "Team", "Unit", "Division", "Bereich", "Team im Betrieb"],
        ["site"] =
        [
            "Location",
            "Place",
            "Place of work",
            "Work location",
            "Workplace",
            "Branch",
            "Office",
            "Arbeitsort",
            "Niederlassung",
            "Filiale",
            "Betriebsstätte",
        ],
        ["legal_entity"] = ["Company", "Employer", "Firm", "Firma", "Arbeitgeber"],
        ["manager"] = ["Supervisor", "Line manager", "Reports to", "Boss", "Vorgesetzte", "Vorgesetzter", "Berichtet an"],
        ["buddy"] = ["Mentor", "Mentorin", "Pate", "Patin"],
        ["kind"] = ["Employment type", "Contract type", "Type of contract", "Kind of employment", "Beschäftigungsart", "Vertragsart"],
        ["start_date"] =
        [
            "Start date",
            "First day",
            "Hire date",
            "Date of hire",
            "Joining date",
            "Joins",
            "Starts",
            "Starts on",
            "Entry date",
            "Eintritt",
            "Eintrittsdatum",
            "Erster Tag",
            "Startdatum",
            "Beginnt am",
        ],
        ["end_date"] = ["End date", "Last day", "Leaving date", "Leaves", "Austritt", "Austrittsdatum", "Letzter Tag", "Enddatum"],
        ["probation_end"] = ["Probation until", "End of probation", "Probezeit bis"],
        ["cost_centre"] = ["Cost center", "Cost code", "KST"],
        ["room"] = ["Desk", "Room", "Raum", "Zimmer"],
        ["pay_group"] = ["Payroll group", "Pay run", "Abrechnungskreis"],
        ["pay_rate"] = ["Pay", "Rate", "Salary", "Wage", "Rate of pay", "Gehalt", "Lohn", "Entgelt"],
        ["weekly_hours"] = ["Hours", "Hours a week", "Hours per week", "Contract hours", "Stunden", "Stunden pro Woche"],
        ["bank_account"] = ["IBAN", "Account", "Account number", "Kontonummer", "Konto"],
        ["badge"] = ["Badge number", "Badge no", "Card", "Card number", "Ausweisnummer", "Chipkarte"],
        ["clock_device"] = ["Device", "Clock", "Terminal"],
        ["shift_pattern"] = ["Shift", "Shifts", "Pattern", "Schicht", "Schichtplan"],
        ["holiday_calendar"] = ["Calendar", "Holidays", "Kalender", "Feiertage"],
        ["leave_days"] = ["Leave", "Annual leave", "Holiday days", "Urlaub", "Urlaubstage"],
    };

    private static readonly string[] Nothing = [];

    /// <summary>Other words for a column.</summary>
    public static IReadOnlyList<string> For(string column) => Of.GetValueOrDefault(column, Nothing);
}
