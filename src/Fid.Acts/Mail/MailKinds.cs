using System.Collections.Concurrent;
using Fid.Core.Lists;

namespace Fid.Acts.Mail;

/// <summary>A kind of message, whose text the firm may make its own.</summary>
/// <param name="Key">Such as "reminders".</param>
/// <param name="Label">What it is called.</param>
/// <param name="About">When it goes out.</param>
/// <param name="Fields">What its text can name.</param>
public sealed record MailKind(string Key, Label Label, Label About, IReadOnlyList<MailField> Fields)
{
    private static readonly ConcurrentDictionary<(string Kind, string Language), MailText> Read = new();

    /// <summary>The text that ships with Fid.</summary>
    /// <param name="language">"en" or "de".</param>
    public MailText Shipped(string language) =>
        Read.GetOrAdd((Key, language), static of => new MailText(Part(of, "subject").Trim(), Part(of, "txt"), Part(of, "html")));

    private static string Part((string Kind, string Language) of, string part)
    {
        using var stream = typeof(MailKind).Assembly.GetManifestResourceStream($"mail/{of.Kind}.{of.Language}.{part}")
            ?? throw new ArgumentException($"There is no text for {of.Kind} in {of.Language}.", nameof(of));
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}

/// <summary>Something that a text can name.</summary>
/// <param name="Insert">What is put into the text for it, in Liquid.</param>
/// <param name="Label">What it is.</param>
public sealed record MailField(string Insert, Label Label);

/// <summary>The kinds of messages that there are.</summary>
public static class MailKinds
{
    /// <summary>The languages that messages are written in.</summary>
    public static IReadOnlyList<string> Languages { get; } = ["en", "de"];

    /// <summary>What tells people of their tasks: one message a day and person.</summary>
    public static MailKind Reminders { get; } =
        new(
            "reminders",
            new("Tasks to look at", "Aufgaben, um die es geht"),
            new(
                "One message a day and person: what is new for them, due or late; and when somebody reminds them.",
                "Eine Nachricht je Tag und Person: was für sie neu, fällig oder verspätet ist; und wenn jemand erinnert."
            ),
            [
                new("{{ name }}", new("The given name of whoever gets it", "Vorname der Person, die sie bekommt")),
                new("{{ firm }}", new("The firm", "Die Firma")),
                new("{{ count }}", new("How many tasks", "Wie viele Aufgaben")),
                new("{{ link }}", new("Where the tasks are in Fid", "Wo die Aufgaben in Fid stehen")),
                new("{{ first.task }}", new("The first task", "Die erste Aufgabe")),
                new("{{ first.hire }}", new("The newcomer of the first task", "Wen die erste Aufgabe betrifft")),
                new(
                    "{% for part in parts %}{{ part.title }}\n{% for r in part.reminders %}- {{ r.task }}, {{ r.hire }}\n{% endfor %}{% endfor %}",
                    new("All tasks, by what there is to say of them", "Alle Aufgaben, nach Anlass")
                ),
                new("{{ r.task }}", new("Within all tasks: the task", "In allen Aufgaben: die Aufgabe")),
                new("{{ r.hire }}", new("Within all tasks: the newcomer", "In allen Aufgaben: wen sie betrifft")),
                new("{{ r.due }}", new("Within all tasks: the day it is due", "In allen Aufgaben: der Tag, an dem sie fällig ist")),
                new("{{ r.late }}", new("Within all tasks: working days late", "In allen Aufgaben: Arbeitstage Verspätung")),
                new("{{ r.owner }}", new("Within all tasks: whose it is, if another’s", "In allen Aufgaben: wessen, wenn einer anderen Person")),
            ]
        );

    /// <summary>What invites people to meet.</summary>
    public static MailKind Invitations { get; } =
        new(
            "invitations",
            new("An invitation to meet", "Einladung zu einem Termin"),
            new(
                "To the newcomer and whoever does it, as soon as a task at a place and time is planned, when any of that changes, and when it is off.",
                "An die neue Person und wer es übernimmt: sobald eine Aufgabe mit Ort und Zeit geplant ist, wenn sich etwas ändert, und wenn sie entfällt."
            ),
            [
                new("{{ name }}", new("The given name of whoever gets it", "Vorname der Person, die sie bekommt")),
                new("{{ firm }}", new("The firm", "Die Firma")),
                new("{{ what }}", new("What one meets for", "Wozu man sich trifft")),
                new("{{ hire }}", new("The newcomer", "Wen es betrifft")),
                new("{{ day }}", new("The day", "Der Tag")),
                new("{{ time }}", new("From when", "Ab wann")),
                new("{{ until }}", new("Until when", "Bis wann")),
                new("{{ place }}", new("The place", "Der Ort")),
                new("{{ link }}", new("Where it stands in Fid", "Wo es in Fid steht")),
                new("{% if changed %}{% endif %}", new("Only where something has changed", "Nur wo sich etwas geändert hat")),
                new("{% if cancelled %}{% endif %}", new("Only where it is off", "Nur wo der Termin entfällt")),
            ]
        );

    public static IReadOnlyList<MailKind> All { get; } = [Reminders, Invitations];

    /// <summary>The kind of that key; null where there is none.</summary>
    public static MailKind? Find(string? key) => All.FirstOrDefault(k => k.Key == key);
}
