using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>`stalls`: where work stalls, by task and by owner.</summary>
internal static class StallsComputation
{
    private const int MostDays = 100_000,
        Believed = 8;

    private static readonly Shape Question = new("calendars", "from", "to", "least?", "tasks");
    private static readonly Shape Task = new("key", "owner", "calendar", "work", "possible", "due?", "done?", "heldUp?");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var asked = new StallsQuestion(new Dictionary<string, WorkCalendar>(), default, default, Believed, []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
                asked = at switch
                {
                    0 => asked with { Calendars = question.Named((ref q) => q.Calendar()) },
                    1 => asked with { From = question.Date() },
                    2 => asked with { To = question.Date() },
                    3 => asked with { Least = question.Whole(1, int.MaxValue) },
                    _ => asked with { Tasks = question.Items(ReadTask) },
                };
        if (!question.IsSound || Stalls.Of(asked).Take(ref question) is not { } stalls)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("tasks");
        foreach (var task in stalls.Tasks)
        {
            writer.WriteStartObject();
            writer.WriteString("key", task.Key);
            Write(task.Figures, writer);
            Write("work", task.Work, writer);
            Write("suggestedWork", task.SuggestedWork, writer);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteStartArray("owners");
        foreach (var owner in stalls.Owners)
        {
            writer.WriteStartObject();
            writer.WriteString("owner", owner.Owner);
            Write(owner.Figures, writer);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static WorkedTask ReadTask(ref QuestionReader question)
    {
        var task = new WorkedTask("", "", "", 0, default);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Task, ref seen) is var at and >= 0)
                task = at switch
                {
                    0 => task with { Key = question.Id() },
                    1 => task with { Owner = question.Id() },
                    2 => task with { Calendar = question.Id() },
                    3 => task with { Work = question.Whole(0, MostDays) },
                    4 => task with { Possible = question.Date() },
                    5 => task with { Due = question.Date() },
                    6 => task with { Done = question.Date() },
                    _ => task with { HeldUp = question.YesNo() },
                };
        return task;
    }

    private static void Write(StallFigures figures, Utf8JsonWriter writer)
    {
        writer.WriteNumber("count", figures.Count);
        Write("median", figures.Median, writer);
        Write("p90", figures.P90, writer);
        Write("lateShare", figures.LateShare, writer);
        Write("heldUpShare", figures.HeldUpShare, writer);
        writer.WriteNumber("open", figures.Open);
    }

    private static void Write(string name, decimal? number, Utf8JsonWriter writer)
    {
        if (number is { } there)
            writer.WriteNumber(name, there);
        else
            writer.WriteNull(name);
    }
}
