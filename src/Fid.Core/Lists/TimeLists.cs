using static Fid.Core.Lists.ColumnType;

namespace Fid.Core.Lists;

/// <summary>When people work, and how that is recorded.</summary>
internal static class TimeLists
{
    private const int DayMinutes = 1440;

    // Everything else refers to calendars, so they come first.
    public static IReadOnlyList<ListDefinition> Calendars { get; } =
    [
        new(
            "calendars",
            ListGroup.Time,
            new("Holiday calendars", "Feiertagskalender"),
            new(
                "Rest days and holidays of a group of people; one can build on another.",
                "Ruhetage und Feiertage einer Gruppe; einer kann auf einem anderen aufbauen."
            ),
            [
                new(
                    "rest",
                    RestDays,
                    new("Rest days", "Ruhetage"),
                    new("Seven digits, Monday first: 1 for rest, 0 for work.", "Sieben Ziffern ab Montag: 1 für Ruhe, 0 für Arbeit."),
                    Required: true,
                    Default: "0000011"
                ),
                new(
                    "based_on",
                    Entry,
                    new("Built on", "Baut auf"),
                    new("The calendar whose holidays also count.", "Der Kalender, dessen Feiertage auch gelten."),
                    List: "calendars"
                ),
                new(
                    "holidays",
                    Holidays,
                    new("Holidays", "Feiertage"),
                    new(
                        "Such as 2027-05-17 Jubilee; --12-25 Midwinter; --05 1MO Spring holiday; easter+1 Easter Monday.",
                        "Etwa 2027-05-17 Jubiläum; --12-25 Mittwinter; --05 1MO Frühlingstag; easter+1 Ostermontag."
                    )
                ),
            ],
            NeededToOpen: true
        ),
    ];

    public static IReadOnlyList<ListDefinition> All { get; } =
    [
        new(
            "shiftPatterns",
            ListGroup.Time,
            new("Shift patterns", "Schichtmuster"),
            new("Cycles of shifts that repeat.", "Folgen von Schichten, die sich wiederholen."),
            [
                new(
                    "shifts",
                    Shifts,
                    new("Shifts", "Schichten"),
                    new(
                        "A letter, the times and the unpaid minutes: E 06:00-14:00 30; N 22:00-06:00 30.",
                        "Ein Buchstabe, die Zeiten und die unbezahlten Minuten: E 06:00-14:00 30; N 22:00-06:00 30."
                    ),
                    Required: true
                ),
                new(
                    "cycle",
                    Cycle,
                    new("Cycle", "Folge"),
                    new("A letter a day, - for off: E E N N - - - -.", "Ein Buchstabe je Tag, - für frei: E E N N - - - -."),
                    Required: true
                ),
                new(
                    "cycle_start",
                    Date,
                    new("Cycle begins", "Folge beginnt"),
                    new("A day on which the cycle begins.", "Ein Tag, an dem die Folge beginnt."),
                    Required: true
                ),
                new(
                    "on_holiday",
                    Choice,
                    new("On holidays", "An Feiertagen"),
                    new("Whether shifts on holidays are worked.", "Ob an Feiertagen gearbeitet wird."),
                    Required: true,
                    Default: "off",
                    Options: [new("off", new("off", "frei")), new("worked", new("worked", "Arbeit"))]
                ),
            ]
        ),
        new(
            "clockRules",
            ListGroup.Time,
            new("Clock rules", "Stempelregeln"),
            new("How punches become paid minutes.", "Wie aus Stempelungen bezahlte Minuten werden."),
            [
                Minutes(
                    "duplicate_seconds",
                    new("Same punch within, seconds", "Doppelt binnen, Sekunden"),
                    new("A punch so soon after the last is dropped.", "Eine Stempelung so kurz nach der letzten entfällt."),
                    3600,
                    "60"
                ),
                Minutes(
                    "early_in",
                    new("In early, minutes", "Früh gekommen, Minuten"),
                    new("From so many minutes before the start a punch counts from the start.", "Ab so vielen Minuten vor Beginn zählt es ab Beginn."),
                    DayMinutes,
                    "30"
                ),
                Minutes(
                    "late_grace",
                    new("Late grace, minutes", "Karenz bei Verspätung, Minuten"),
                    new("Up to so many minutes late counts from the start.", "Bis zu so vielen Minuten zu spät zählt es ab Beginn."),
                    DayMinutes,
                    "5"
                ),
                Minutes(
                    "early_out_grace",
                    new("Early leave grace, minutes", "Karenz beim Gehen, Minuten"),
                    new("Up to so many minutes early counts to the end.", "Bis zu so vielen Minuten zu früh zählt es bis zum Ende."),
                    DayMinutes,
                    "5"
                ),
                Minutes(
                    "late_out",
                    new("Out late, minutes", "Spät gegangen, Minuten"),
                    new("Up to so many minutes after the end counts to the end.", "Bis zu so vielen Minuten nach Ende zählt es bis zum Ende."),
                    DayMinutes,
                    "15"
                ),
                Minutes(
                    "round_to",
                    new("Round to, minutes", "Runden auf, Minuten"),
                    new("Other times are rounded to so many minutes.", "Andere Zeiten werden auf so viele Minuten gerundet."),
                    60,
                    "15"
                ),
                new(
                    "round",
                    Choice,
                    new("Rounding", "Rundung"),
                    new("In whose favour.", "Zu wessen Gunsten."),
                    Required: true,
                    Default: "nearest",
                    Options:
                    [
                        new("nearest", new("nearest", "nächste")),
                        new("for", new("for the worker", "für die Person")),
                        new("against", new("against the worker", "gegen die Person")),
                    ]
                ),
                Minutes(
                    "break_after",
                    new("Break after, minutes", "Pause nach, Minuten"),
                    new("Who works longer has a break taken off.", "Wer länger arbeitet, dem wird eine Pause abgezogen."),
                    DayMinutes,
                    "360"
                ),
                Minutes(
                    "break_minutes",
                    new("Break, minutes", "Pause, Minuten"),
                    new("How long that break is.", "Wie lang diese Pause ist."),
                    DayMinutes,
                    "30"
                ),
                Minutes(
                    "daily_overtime_after",
                    new("Daily overtime after, minutes", "Tägliche Überstunden nach, Minuten"),
                    new("Minutes a day above which overtime begins.", "Minuten am Tag, ab denen Überstunden beginnen."),
                    DayMinutes,
                    "480"
                ),
                Minutes(
                    "weekly_overtime_after",
                    new("Weekly overtime after, minutes", "Wöchentliche Überstunden nach, Minuten"),
                    new("Minutes a week above which overtime begins.", "Minuten in der Woche, ab denen Überstunden beginnen."),
                    7 * DayMinutes,
                    "2400"
                ),
            ]
        ),
        new(
            "deviceGroups",
            ListGroup.Time,
            new("Device groups", "Terminalgruppen"),
            new("Clock devices that know the same badges.", "Terminals, die dieselben Ausweise kennen."),
            []
        ),
        new(
            "clockDevices",
            ListGroup.Time,
            new("Clock devices", "Terminals"),
            new("Where people clock in.", "Wo gestempelt wird."),
            [
                new(
                    "group",
                    Entry,
                    new("Group", "Gruppe"),
                    new("Badges are known to all devices of a group.", "Ausweise gelten an allen Terminals einer Gruppe."),
                    Required: true,
                    List: "deviceGroups"
                ),
                new("site", Entry, new("Site", "Standort"), new("Where it hangs.", "Wo es hängt."), List: "sites"),
                new(
                    "rules",
                    Entry,
                    new("Clock rules", "Stempelregeln"),
                    new("The rules for punches made here.", "Die Regeln für Stempelungen hier."),
                    List: "clockRules"
                ),
            ]
        ),
    ];

    private static ListColumn Minutes(string key, Label label, Label note, int most, string usual) =>
        new(key, Whole, label, note, Required: true, Min: key == "round_to" ? 1 : 0, Max: most, Default: usual);
}
