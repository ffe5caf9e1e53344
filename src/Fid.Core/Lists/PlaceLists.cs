using static Fid.Core.Lists.ColumnType;

namespace Fid.Core.Lists;

/// <summary>Where people work, and for whom.</summary>
internal static class PlaceLists
{
    internal static readonly ListColumn Address = new(
        "address",
        LongText,
        new("Address", "Anschrift"),
        new("Street, town and postcode, a line each.", "Straße, Ort und Postleitzahl, je eine Zeile.")
    );
    internal static readonly ListColumn CostCentre = new(
        "cost_centre",
        Entry,
        new("Cost centre", "Kostenstelle"),
        new("What people here are charged to unless their record says otherwise.", "Worauf Menschen hier gebucht werden, wenn ihre Akte nichts anderes sagt."),
        List: "costCentres"
    );

    public static IReadOnlyList<ListDefinition> All { get; } =
    [
        new(
            "legalEntities",
            ListGroup.Places,
            new("Legal entities", "Gesellschaften"),
            new("The companies that employ people.", "Die Firmen, die Menschen beschäftigen."),
            [
                new(
                    "registration",
                    Text,
                    new("Registration", "Registernummer"),
                    new("Its number in the register of companies.", "Ihre Nummer im Handelsregister.")
                ),
                new("country", Country, new("Country", "Land"), new("Two letters, such as IE.", "Zwei Buchstaben, etwa IE.")),
                Address,
            ]
        ),
        new(
            "costCentres",
            ListGroup.Places,
            new("Cost centres", "Kostenstellen"),
            new("What somebody's cost is charged to.", "Worauf die Kosten gebucht werden."),
            []
        ),
        new(
            "sites",
            ListGroup.Places,
            new("Sites", "Standorte"),
            new("The places where people work, on land or afloat.", "Die Orte, an denen gearbeitet wird, an Land oder auf See."),
            [
                new("time_zone", ColumnType.TimeZone, new("Time zone", "Zeitzone"), new("Such as Europe/Dublin.", "Etwa Europe/Dublin."), Required: true),
                new(
                    "calendar",
                    Entry,
                    new("Holiday calendar", "Feiertagskalender"),
                    new(
                        "The calendar of people here unless their record says otherwise.",
                        "Der Kalender der Menschen hier, wenn ihre Akte nichts anderes sagt."
                    ),
                    Required: true,
                    List: "calendars"
                ),
                new("country", Country, new("Country", "Land"), new("Two letters, such as IE.", "Zwei Buchstaben, etwa IE.")),
                Address,
                new("phone", Phone, new("Telephone", "Telefon"), new("The number newcomers can ring.", "Die Nummer, unter der Neue anrufen können.")),
                new(
                    "map",
                    Link,
                    new("Map", "Karte"),
                    new("A web address that shows the way, or geo:53.3,-6.2.", "Eine Webadresse, die den Weg zeigt, oder geo:53.3,-6.2.")
                ),
                new(
                    "legal_entity",
                    Entry,
                    new("Legal entity", "Gesellschaft"),
                    new("The company that runs it.", "Die Firma, die ihn betreibt."),
                    List: "legalEntities"
                ),
                CostCentre,
            ],
            NeededToOpen: true
        ),
        new(
            "departments",
            ListGroup.Places,
            new("Departments", "Abteilungen"),
            new("The tree of departments, up to five levels, with who leads each.", "Der Baum der Abteilungen, bis zu fünf Ebenen, und wer sie leitet."),
            [
                new(
                    "parent",
                    Entry,
                    new("Part of", "Teil von"),
                    new("The department it belongs to; empty at the top.", "Die Abteilung, zu der sie gehört; leer an der Spitze."),
                    List: "departments"
                ),
                new(
                    "heads",
                    Heads,
                    new("Heads", "Leitung"),
                    new(
                        "A date and an employee number, such as 2027-01-01 1042; several separated by semicolons.",
                        "Ein Datum und eine Personalnummer, etwa 2027-01-01 1042; mehrere mit Semikolon getrennt."
                    )
                ),
                CostCentre,
            ],
            NeededToOpen: true,
            DeepestTree: 5
        ),
    ];
}
