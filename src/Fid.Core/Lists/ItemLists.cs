using static Fid.Core.Lists.ColumnType;

namespace Fid.Core.Lists;

/// <summary>What people sign, and the firm's own words to choose from.</summary>
internal static class ItemLists
{
    public static IReadOnlyList<ListDefinition> All { get; } =
    [
        new(
            "documentKinds",
            ListGroup.Things,
            new("Document kinds", "Dokumentarten"),
            new("Papers a newcomer meets, and what is to be done with each.", "Papiere für Neue und was damit zu tun ist."),
            [
                new(
                    "act",
                    Choice,
                    new("To be", "Zu"),
                    new("What the newcomer does with it.", "Was die oder der Neue damit tut."),
                    Required: true,
                    Default: "read",
                    Options:
                    [
                        new("read", new("read", "lesen")),
                        new("acknowledge", new("acknowledged", "bestätigen")),
                        new("sign", new("signed", "unterschreiben")),
                        new("upload", new("uploaded", "hochladen")),
                    ]
                ),
                new(
                    "keep_years",
                    Whole,
                    new("Keep, years", "Aufbewahren, Jahre"),
                    new("How long it is kept after somebody has left; empty for ever.", "Wie lange es nach dem Austritt aufbewahrt wird; leer für immer."),
                    Max: 100
                ),
            ]
        ),
        new(
            "employmentKinds",
            ListGroup.Words,
            new("Kinds of employment", "Beschäftigungsarten"),
            new("Permanent, seasonal and the like.", "Unbefristet, saisonal und dergleichen."),
            [new("ends", YesNo, new("Has an end date", "Hat ein Ende"), new("Whether it always ends on a date.", "Ob sie immer an einem Tag endet."))],
            NeededToOpen: true
        ),
        new(
            "reasons",
            ListGroup.Words,
            new("Reasons", "Gründe"),
            new("Why a task is skipped, a record changed, or somebody leaves.", "Warum eine Aufgabe entfällt, eine Akte geändert wird oder jemand geht."),
            [
                new(
                    "use",
                    Choice,
                    new("For", "Für"),
                    new("Where it is offered.", "Wo er angeboten wird."),
                    Required: true,
                    Default: "change",
                    Options:
                    [
                        new("skip", new("skipped tasks", "entfallene Aufgaben")),
                        new("change", new("changed records", "geänderte Akten")),
                        new("leave", new("leaving", "Austritte")),
                        new("noShow", new("hires that do not come", "Nichterscheinen")),
                    ]
                ),
            ]
        ),
        new(
            "choiceLists",
            ListGroup.Words,
            new("Choice lists", "Auswahllisten"),
            new(
                "The firm's own lists to choose from, in its own order and words.",
                "Eigene Listen der Firma zum Auswählen, in eigener Reihenfolge und eigenen Worten."
            ),
            [
                new(
                    "options",
                    Options,
                    new("Options", "Auswahl"),
                    new(
                        "A value and its labels: S: small | klein; several separated by semicolons.",
                        "Ein Wert und seine Bezeichnungen: S: small | klein; mehrere mit Semikolon getrennt."
                    ),
                    Required: true
                ),
            ]
        ),
    ];
}
