using static Fid.Core.Lists.ColumnType;

namespace Fid.Core.Lists;

/// <summary>What people do.</summary>
internal static class WorkLists
{
    public static IReadOnlyList<ListDefinition> All { get; } =
    [
        new(
            "grades",
            ListGroup.Work,
            new("Grades", "Stufen"),
            new("Levels of work, with the pay band of each.", "Stufen der Arbeit mit ihrem Gehaltsband."),
            [
                new(
                    "bands",
                    Bands,
                    new("Pay bands", "Gehaltsbänder"),
                    new(
                        "A date, the least, middle and most, and year or hour: 2027-01-01 30000-36000-42000 year.",
                        "Ein Datum, das untere, mittlere und obere Ende und year oder hour: 2027-01-01 30000-36000-42000 year."
                    )
                ),
                new(
                    "furthest_from_colleagues",
                    Number,
                    new("Furthest from colleagues, %", "Am weitesten von anderen, %"),
                    new(
                        "Pay further than this from the middle of those with the same job and site needs a reason; empty for never.",
                        "Entgelt, das weiter von der Mitte derer mit gleicher Stelle und gleichem Ort liegt, braucht einen Grund; leer für nie."
                    ),
                    Max: 1000
                ),
            ]
        ),
        new(
            "jobFamilies",
            ListGroup.Work,
            new("Job families", "Berufsgruppen"),
            new("Jobs of one kind, such as all on deck.", "Stellen einer Art, etwa alle an Deck."),
            []
        ),
        new(
            "certificates",
            ListGroup.Things,
            new("Certificates", "Nachweise"),
            new("What people must hold to do a job.", "Was man besitzen muss, um eine Stelle auszufüllen."),
            [
                new(
                    "valid_months",
                    Whole,
                    new("Valid for, months", "Gültig, Monate"),
                    new("How long one lasts; empty for ever.", "Wie lange er gilt; leer für immer."),
                    Min: 1,
                    Max: 600
                ),
                new(
                    "warn_days",
                    Whole,
                    new("Warn, days before", "Warnen, Tage vorher"),
                    new("How long before the end to warn.", "Wie lange vor dem Ende gewarnt wird."),
                    Max: 730,
                    Default: "60"
                ),
            ]
        ),
        new(
            "items",
            ListGroup.Things,
            new("Items to issue", "Ausgabe"),
            new("What newcomers are given, and give back when they go.", "Was Neue erhalten und beim Gehen zurückgeben."),
            [
                new(
                    "sizes",
                    Options,
                    new("Sizes", "Größen"),
                    new("In order, separated by semicolons: S; M; L.", "Der Reihe nach, mit Semikolon getrennt: S; M; L.")
                ),
                new(
                    "serial",
                    YesNo,
                    new("Serial number", "Seriennummer"),
                    new("Whether each one has a number that is noted.", "Ob jedes Stück eine Nummer hat, die notiert wird.")
                ),
                new(
                    "returned",
                    YesNo,
                    new("To be returned", "Rückgabe"),
                    new("Whether it comes back when somebody leaves.", "Ob es beim Austritt zurückkommt."),
                    Default: "yes"
                ),
            ]
        ),
        new(
            "jobs",
            ListGroup.Work,
            new("Jobs", "Stellen"),
            new("What people are employed as; all that holders share.", "Als was Menschen beschäftigt sind; was alle Inhaber teilen."),
            [
                new("family", Entry, new("Family", "Berufsgruppe"), new("Jobs of the same kind.", "Stellen derselben Art."), List: "jobFamilies"),
                new("grade", Entry, new("Grade", "Stufe"), new("The grade, and so the pay band.", "Die Stufe und damit das Gehaltsband."), List: "grades"),
                new(
                    "training_hours",
                    Number,
                    new("Training, hours a year", "Fortbildung, Stunden im Jahr"),
                    new("Hours a year spent learning, not working.", "Stunden im Jahr, in denen gelernt und nicht gearbeitet wird."),
                    Max: 8784
                ),
                new(
                    "classification",
                    Text,
                    new("Occupation code", "Berufskennziffer"),
                    new("The code statistics ask for, such as one of ISCO-08.", "Die Kennziffer für Statistiken, etwa aus ISCO-08.")
                ),
                new(
                    "safety_critical",
                    YesNo,
                    new("Safety-critical", "Sicherheitsrelevant"),
                    new("Whether others' safety hangs on it.", "Ob die Sicherheit anderer daran hängt.")
                ),
                new(
                    "overtime",
                    Choice,
                    new("Overtime", "Überstunden"),
                    new("How hours beyond the usual are settled.", "Wie Mehrarbeit ausgeglichen wird."),
                    Options: [new("paid", new("paid", "bezahlt")), new("timeOff", new("time off", "Freizeit")), new("none", new("none", "keine"))]
                ),
                new(
                    "items",
                    Entries,
                    new("Items to issue", "Ausgabe"),
                    new("What every holder is given: codes separated by semicolons.", "Was alle Inhaber erhalten: Codes, mit Semikolon getrennt."),
                    List: "items"
                ),
                new(
                    "certificates",
                    Requirements,
                    new("Certificates", "Nachweise"),
                    new(
                        "Codes, each with essential or desirable: SEA essential; RADIO desirable.",
                        "Codes, jeweils mit essential oder desirable: SEA essential; RADIO desirable."
                    ),
                    List: "certificates"
                ),
                new(
                    "rates",
                    Rates,
                    new("Second-job rates", "Sätze als Zweitstelle"),
                    new(
                        "A date, flat, percent or amount, and the figure: 2027-01-01 percent 10.",
                        "Ein Datum, flat, percent oder amount und die Zahl: 2027-01-01 percent 10."
                    )
                ),
            ],
            NeededToOpen: true
        ),
        new(
            "seats",
            ListGroup.Work,
            new("Seats", "Planstellen"),
            new(
                "Jobs in departments, how many people each may have, and to which seat it reports.",
                "Stellen in Abteilungen, wie viele Menschen sie haben dürfen und wem sie berichten."
            ),
            [
                new("job", Entry, new("Job", "Stelle"), new("The job.", "Die Stelle."), Required: true, List: "jobs"),
                new(
                    "department",
                    Entry,
                    new("Department", "Abteilung"),
                    new("The department it is in.", "Die Abteilung, in der sie ist."),
                    Required: true,
                    List: "departments"
                ),
                new(
                    "reports_to",
                    Entry,
                    new("Reports to", "Berichtet an"),
                    new("The seat whose holder manages these.", "Die Planstelle, deren Inhaber diese führt."),
                    List: "seats"
                ),
                new(
                    "head_count",
                    Whole,
                    new("Head-count", "Anzahl"),
                    new("How many people it may have.", "Wie viele Menschen sie haben darf."),
                    Required: true,
                    Max: 10_000,
                    Default: "1"
                ),
            ]
        ),
        new(
            "teams",
            ListGroup.Work,
            new("Teams", "Teams"),
            new("Those who share the tasks of one kind, such as stores or IT.", "Wer sich Aufgaben einer Art teilt, etwa Lager oder IT."),
            [
                new(
                    "hand_out",
                    Choice,
                    new("Its tasks come to", "Ihre Aufgaben bekommt"),
                    new(
                        "Who of the team gets a task that can be begun; who is away gets none.",
                        "Wer vom Team eine Aufgabe bekommt, die begonnen werden kann; wer abwesend ist, bekommt keine."
                    ),
                    Default: "whoever",
                    Options:
                    [
                        new("whoever", new("whoever takes it", "wer sie übernimmt")),
                        new("rotation", new("each in turn", "reihum jeder")),
                        new("load", new("who has the fewest", "wer die wenigsten hat")),
                    ]
                ),
            ]
        ),
    ];
}
