using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Chasing;

/// <summary>What goes out on a day about tasks that are not done.</summary>
/// <param name="Messages">One for each person who is written to, by their id.</param>
/// <param name="Waiting">The tasks of which something does not go out, each once, in their order.</param>
public sealed record Chase(IReadOnlyList<ChaseMessage> Messages, IReadOnlyList<WaitingReminder> Waiting)
{
    /// <summary>
    /// Works out who is told what. A task has its moments, counted in working days of the owner from the due date; of those before, at and after
    /// it only the latest that has come counts, and so what was missed is made good by one message. The escalation is on a track of its own.
    /// Each goes out unless it was sent.
    /// </summary>
    /// <returns>Problems by the path in the question: "duplicate-id"; "unknown-person" for owners, managers and stand-ins, "unknown-calendar",
    /// "unknown-task" of what was sent; "not-in-order" for an absence that ends before it begins; "out-of-range" for a policy that reminds
    /// less than one working day before or after.</returns>
    public static Result<Chase> Of(ChaseQuestion question)
    {
        var problems = new List<Problem>();
        var people = Identifiers.Index(question.People, p => p.Id, "/people", problems);
        Check(question, people, problems);
        return problems.Count > 0 ? Result<Chase>.Failed(problems) : new ChaseWork(question, people).Answer();
    }

    private static void Check(ChaseQuestion question, Dictionary<string, ChasedPerson> people, List<Problem> problems)
    {
        for (var i = 0; i < question.People.Count; i++)
        {
            var (_, calendar, manager, away) = question.People[i];
            if (!question.Calendars.ContainsKey(calendar))
                problems.Add(new Problem($"/people/{i}/calendar", "unknown-calendar", $"There is no calendar {calendar}."));
            Known(manager, $"/people/{i}/manager");
            problems.AddRange(Absence.Check(away, people.ContainsKey, $"/people/{i}/away"));
        }
        var tasks = Identifiers.Index(question.Tasks, t => t.Id, "/tasks", problems);
        for (var i = 0; i < question.Tasks.Count; i++)
            Known(question.Tasks[i].Owner, $"/tasks/{i}/owner");
        foreach (var (i, sent) in question.Sent.Index())
            if (!tasks.ContainsKey(sent.Task))
                problems.Add(new Problem($"/sent/{i}/task", "unknown-task", $"There is no task {sent.Task}."));
        var policy = question.Policy;
        for (var i = 0; i < policy.Before.Count; i++)
            AtLeast(1, policy.Before[i], $"/policy/before/{i}");
        AtLeast(1, policy.OverdueEvery, "/policy/overdueEvery");
        AtLeast(0, policy.OverdueMost, "/policy/overdueMost");
        AtLeast(0, policy.EscalateAfter ?? 0, "/policy/escalateAfter");

        void Known(string? id, string path)
        {
            if (id is not null && !people.ContainsKey(id))
                problems.Add(new Problem(path, "unknown-person", $"There is nobody {id}."));
        }

        void AtLeast(int least, int days, string path)
        {
            if (days < least)
                problems.Add(new Problem(path, "out-of-range", $"This is to be {least} or more."));
        }
    }
}

/// <summary>What one person is told on a day.</summary>
/// <param name="To">The id of who is written to.</param>
/// <param name="Reminders">Escalations first, then what is late, due and coming; of each by due date, then by task.</param>
public sealed record ChaseMessage(string To, IReadOnlyList<Reminder> Reminders);

/// <summary>A reminder of one task.</summary>
/// <param name="Day">The day of its moment: today, or the last before.</param>
/// <param name="Days">How many working days of the owner it is from the due date: −5 five before, 2 two after.</param>
/// <param name="For">The id of the owner, where somebody else is told, and of every escalation; null otherwise.</param>
public sealed record Reminder(string Task, ReminderKind Kind, LocalDate Day, int Days, string? For);

/// <summary>A task of which something does not go out.</summary>
public sealed record WaitingReminder(string Task, WaitingReason Why);

/// <summary>Why a reminder does not go out; of several the first here.</summary>
public enum WaitingReason
{
    /// <summary>The task cannot be begun.</summary>
    NotPossible,

    /// <summary>Reminders of it are paused.</summary>
    Paused,

    /// <summary>Nobody is there to whom it could be escalated; the owner is reminded all the same.</summary>
    NoManager,

    /// <summary>Whoever would be told does not work on this day; it goes out on the next on which they do.</summary>
    RestDay,
}
