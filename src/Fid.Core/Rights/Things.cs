using Fid.Core.Lists;

namespace Fid.Core.Rights;

/// <summary>What rights can be about besides fields: things of one person each, whom a right then reaches, and things of the firm.</summary>
public static class Things
{
    /// <summary>A record: a person's values, history and files.</summary>
    public const string Record = "record";

    /// <summary>A hire under way, as Arrivals and its checklist show it.</summary>
    public const string Hire = "hire";

    /// <summary>The tasks of a hire, whosoever they are.</summary>
    public const string Task = "task";

    /// <summary>The list of people.</summary>
    public const string People = "people";

    /// <summary>What a pay run pays those whose pay begins or changes in it.</summary>
    public const string Pay = "pay";

    /// <summary>Role templates, add-ons, and the tasks they share.</summary>
    public const string Template = "template";

    /// <summary>The configuration of the record's fields.</summary>
    public const string Fields = "fields";

    /// <summary>The firm's lists.</summary>
    public const string List = "list";

    /// <summary>The firm's settings.</summary>
    public const string Settings = "settings";

    /// <summary>Sheets that are brought in.</summary>
    public const string Sheet = "sheet";

    /// <summary>Who comes from recruiting.</summary>
    public const string Candidate = "candidate";

    /// <summary>Connections with other systems.</summary>
    public const string Connection = "connection";

    /// <summary>Accounts: who may sign in.</summary>
    public const string Account = "account";

    /// <summary>Roles, groups, and who holds which.</summary>
    public const string Role = "role";

    /// <summary>Work in the background.</summary>
    public const string Work = "work";

    /// <summary>The trail of changes.</summary>
    public const string Trail = "trail";

    /// <summary>Every right to a thing, one by one, in words.</summary>
    public static IReadOnlyList<KnownRight> Rights { get; } =
    [
        new(Actions.See, Record, true, new("Open the record, its history and files", "Die Akte öffnen, mit Verlauf und Dateien")),
        new(
            Actions.Correct,
            Record,
            true,
            new("Take changes back, explain them, correct a start", "Änderungen zurücknehmen, erklären, den Beginn berichtigen")
        ),
        new(Actions.Merge, Record, true, new("Make two records of one person one", "Zwei Akten einer Person zusammenführen")),
        new(Actions.See, Hire, true, new("See the hire in Arrivals, with its checklist", "Die Einstellung unter Ankünfte sehen, mit Checkliste")),
        new(Actions.Open, Hire, true, new("Open hires", "Einstellungen anlegen")),
        new(
            Actions.Edit,
            Hire,
            true,
            new("Move the start, end a hire, take it up again", "Den Beginn verschieben, eine Einstellung beenden oder wieder aufnehmen")
        ),
        new(Actions.Edit, Task, true, new("Tick and skip everybody's tasks", "Aufgaben aller abhaken und überspringen")),
        new(Actions.See, People, false, new("See the list of people", "Die Liste der Personen sehen")),
        new(Actions.Export, People, false, new("Take people out as a sheet", "Personen als Tabelle ausgeben")),
        new(Actions.See, Pay, false, new("See who is paid anew or otherwise in a pay run", "Sehen, wer in einer Abrechnung neu oder anders bezahlt wird")),
        new(Actions.Edit, Pay, false, new("Tick pay as checked before a pay run", "Bezahlung vor einer Abrechnung als geprüft abhaken")),
        new(Actions.Revise, Pay, false, new("Revise the pay of many by a rule", "Die Bezahlung vieler nach einer Regel ändern")),
        new(Actions.See, Template, false, new("See templates", "Vorlagen sehen")),
        new(Actions.Edit, Template, false, new("Change and publish templates", "Vorlagen ändern und veröffentlichen")),
        new(Actions.Edit, Fields, false, new("Change and publish the fields of the record", "Die Felder der Akte ändern und veröffentlichen")),
        new(Actions.See, List, false, new("See the firm's lists", "Die Listen der Firma sehen")),
        new(Actions.Edit, List, false, new("Change the firm's lists", "Die Listen der Firma ändern")),
        new(Actions.Edit, Settings, false, new("Change the firm's settings", "Die Einstellungen der Firma ändern")),
        new(Actions.Edit, Sheet, false, new("Bring sheets in", "Tabellen einlesen")),
        new(Actions.Edit, Candidate, false, new("Take up or decline who comes from recruiting", "Bewerbungen übernehmen oder ablehnen")),
        new(Actions.Edit, Connection, false, new("Connect Fid with other systems", "Fid mit anderen Systemen verbinden")),
        new(Actions.See, Account, false, new("See who may sign in", "Sehen, wer sich anmelden darf")),
        new(Actions.Edit, Account, false, new("Invite, change and disable accounts", "Konten einladen, ändern und sperren")),
        new(Actions.StandFor, Account, false, new("See Fid as somebody else does", "Fid so sehen, wie jemand anders es sieht")),
        new(Actions.See, Role, false, new("See roles, and who may do what", "Rollen sehen, und wer was darf")),
        new(Actions.Edit, Role, false, new("Change roles and groups", "Rollen und Gruppen ändern")),
        new(Actions.Grant, Role, false, new("Give roles and take them away", "Rollen geben und nehmen")),
        new(Actions.Edit, Work, false, new("See work in the background, and run it again", "Arbeit im Hintergrund sehen und wiederholen")),
        new(Actions.See, Trail, false, new("See the trail of changes", "Die Spur der Änderungen sehen")),
    ];

    /// <summary>The right to do something with a thing; null where there is none.</summary>
    public static KnownRight? Find(string action, string thing) => Rights.FirstOrDefault(r => r.Action == action && r.Thing == thing);
}

/// <summary>A right to a thing.</summary>
/// <param name="Action">What may be done, one of <see cref="Actions"/>.</param>
/// <param name="Thing">With what, one of <see cref="Things"/>.</param>
/// <param name="OfPeople">Whether it is of one person each, so that a right has a reach; one to a thing of the firm reaches all or nobody.</param>
/// <param name="Label">What it lets somebody do.</param>
public sealed record KnownRight(string Action, string Thing, bool OfPeople, Label Label);
