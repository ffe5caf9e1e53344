using System.Globalization;
using Fid.Core.Chasing;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>What the text of a reminder can name, in the language of whoever gets it.</summary>
/// <param name="language">"en" or "de".</param>
internal sealed class ReminderWords(string language)
{
    private readonly bool _german = language == "de";
    private readonly CultureInfo _culture = CultureInfo.GetCultureInfo(language == "de" ? "de-DE" : "en-IE");

    /// <param name="name">What whoever gets it is called.</param>
    /// <param name="tasks">Where the tasks are in Fid.</param>
    /// <param name="lines">The tasks, at least one.</param>
    /// <param name="asker">Who asks for it; null where the day does.</param>
    public object Of(string name, string firm, Uri tasks, IReadOnlyList<RemindedLine> lines, string? asker)
    {
        var told = lines.Select(l => (l.Kind, Line: Line(l, asker is not null))).ToList();
        return new
        {
            name = name.Split(' ')[0],
            firm,
            count = told.Count,
            first = told[0].Line,
            link = tasks.ToString(),
            parts = told.GroupBy(l => l.Kind, l => l.Line)
                .Select(g => new { title = asker is null ? Title(g.Key) : Asked(asker), reminders = g.ToArray() })
                .ToArray(),
        };
    }

    private object Line(RemindedLine line, bool isAsked) =>
        new
        {
            task = _german ? line.TaskDe ?? line.Task : line.Task,
            hire = line.Hire,
            due = line.Due?.ToString("ddd d MMM", _culture),
            late = isAsked ? 0 : Math.Max(line.Days, 0),
            owner = line.Owner,
        };

    private string Asked(string asker) => _german ? $"{asker} bittet Sie darum" : $"{asker} asks you for this";

    private string Title(ReminderKind kind) =>
        kind switch
        {
            ReminderKind.Escalation => _german ? "So spät, dass Sie es wissen sollten" : "So late that you should know",
            ReminderKind.Overdue => _german ? "Verspätet" : "Late",
            ReminderKind.Due => _german ? "Heute fällig" : "Due today",
            ReminderKind.Opened => _german ? "Neu für Sie" : "New for you",
            _ => _german ? "Bald fällig" : "Due soon",
        };
}

/// <summary>A task of which somebody is told.</summary>
/// <param name="Hire">What whoever gets it may know of the newcomer: the name or the number.</param>
/// <param name="Days">Working days from the day it is due: negative before it.</param>
/// <param name="Owner">Whose it is, where somebody else is told.</param>
internal sealed record RemindedLine(ReminderKind Kind, string Task, string? TaskDe, string Hire, LocalDate? Due, int Days, string? Owner);
