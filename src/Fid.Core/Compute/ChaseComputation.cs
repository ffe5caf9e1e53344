using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>`chase`: what goes out today about tasks that are not done.</summary>
internal static class ChaseComputation
{
    private const int MostDays = 100_000;

    private static readonly Shape Question = new("today", "calendars", "policy", "people", "tasks", "sent");
    private static readonly Shape Policy = new("before", "onDue", "overdueEvery", "overdueMost", "escalateAfter?");
    private static readonly Shape Person = new("id", "calendar", "manager?", "away?");
    private static readonly Shape Task = new("id", "owner", "due", "possible", "paused?");
    private static readonly Shape Sent = new("task", "kind", "day");
    private static readonly Choices Kinds = new("escalation", "overdue", "due", "before");
    private static readonly Choices Reasons = new("not-possible", "paused", "no-manager", "rest-day");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var asked = new ChaseQuestion(default, new Dictionary<string, WorkCalendar>(), new ChasePolicy([], false, 1, 0, null), [], [], []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
                asked = at switch
                {
                    0 => asked with { Today = question.Date() },
                    1 => asked with { Calendars = question.Named((ref q) => q.Calendar()) },
                    2 => asked with { Policy = ReadPolicy(ref question) },
                    3 => asked with { People = question.Items(ReadPerson) },
                    4 => asked with { Tasks = question.Items(ReadTask) },
                    _ => asked with { Sent = question.Items(ReadSent) },
                };
        if (question.IsSound && Chase.Of(asked).Take(ref question) is { } chase)
            Write(chase, writer);
    }

    private static ChasePolicy ReadPolicy(ref QuestionReader question)
    {
        var policy = new ChasePolicy([], false, 1, 0, null);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Policy, ref seen) is var at and >= 0)
                policy = at switch
                {
                    0 => policy with { Before = question.Items((ref q) => q.Whole(1, MostDays)) },
                    1 => policy with { OnDue = question.YesNo() },
                    2 => policy with { OverdueEvery = question.Whole(1, MostDays) },
                    3 => policy with { OverdueMost = question.Whole(0, MostDays) },
                    _ => policy with { EscalateAfter = question.Whole(0, MostDays) },
                };
        return policy;
    }

    private static ChasedPerson ReadPerson(ref QuestionReader question)
    {
        var person = new ChasedPerson("", "", null, []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Person, ref seen) is var at and >= 0)
                person = at switch
                {
                    0 => person with { Id = question.Id() },
                    1 => person with { Calendar = question.Id() },
                    2 => person with { Manager = question.Id() },
                    _ => person with { Away = question.Items(AbsenceReading.Read) },
                };
        return person;
    }

    private static ChasedTask ReadTask(ref QuestionReader question)
    {
        var task = new ChasedTask("", "", default, false);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Task, ref seen) is var at and >= 0)
                task = at switch
                {
                    0 => task with { Id = question.Id() },
                    1 => task with { Owner = question.Id() },
                    2 => task with { Due = question.Date() },
                    3 => task with { Possible = question.YesNo() },
                    _ => task with { Paused = question.YesNo() },
                };
        return task;
    }

    private static SentReminder ReadSent(ref QuestionReader question)
    {
        var sent = new SentReminder("", default, default);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Sent, ref seen) is var at and >= 0)
                sent = at switch
                {
                    0 => sent with { Task = question.Id() },
                    1 => sent with { Kind = (ReminderKind)question.Choice(Kinds) },
                    _ => sent with { Day = question.Date() },
                };
        return sent;
    }

    private static void Write(Chase chase, Utf8JsonWriter writer)
    {
        writer.WriteStartObject();
        writer.WriteStartArray("messages");
        foreach (var message in chase.Messages)
        {
            writer.WriteStartObject();
            writer.WriteString("to", message.To);
            writer.WriteStartArray("reminders");
            foreach (var reminder in message.Reminders)
            {
                writer.WriteStartObject();
                writer.WriteString("task", reminder.Task);
                writer.WriteString("kind", Kinds.Word((int)reminder.Kind));
                writer.WritePropertyName("day");
                writer.Date(reminder.Day);
                writer.WriteNumber("days", reminder.Days);
                if (reminder.For is { } owner)
                    writer.WriteString("for", owner);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteStartArray("waiting");
        foreach (var (task, why) in chase.Waiting)
        {
            writer.WriteStartObject();
            writer.WriteString("task", task);
            writer.WriteString("why", Reasons.Word((int)why));
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }
}
