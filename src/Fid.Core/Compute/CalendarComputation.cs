using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`calendar`: adding, counting and rolling dates over working days.</summary>
internal static class CalendarComputation
{
    private const int Do = 0,
        Date = 1,
        Days = 2,
        Rule = 3,
        From = 4,
        To = 5;

    private static readonly Shape Question = new("calendar", "ask");
    private static readonly Shape Ask = new("do", "date?", "days?", "rule?", "from?", "to?");

    private static readonly Choices Rules = new("following", "preceding", "modifiedFollowing");

    // What each question needs besides "do"; nothing else may stand there.
    private static readonly Dictionary<string, uint> Needs = new(StringComparer.Ordinal)
    {
        ["add"] = 1u << Date | 1u << Days,
        ["count"] = 1u << From | 1u << To,
        ["roll"] = 1u << Date | 1u << Rule,
    };

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        WorkCalendar? calendar = null;
        List<Asked> asked = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    calendar = question.Calendar();
                else
                    asked = question.Items(ReadAsked);
            }
        if (!question.IsSound)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("answers");
        for (var i = 0; i < asked.Count; i++)
        {
            var a = asked[i];
            if (a.What == "count")
                writer.WriteNumberValue(calendar!.Count(a.From, a.To));
            else if ((a.What == "add" ? calendar!.Add(a.Date, a.Days) : calendar!.Roll(a.Date, a.Rule)) is { } date)
                writer.Date(date);
            else
                question.Report([new Problem($"/ask/{i}", "out-of-range", "The answer falls outside the years 1 to 9999.")]);
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static Asked ReadAsked(ref QuestionReader question)
    {
        var asked = new Asked();
        var (seen, given) = (0u, 0u);
        if (!question.Object())
            return asked;
        while (question.Property(Ask, ref seen) is var at and >= 0)
        {
            // One that is null was seen, and gives nothing.
            given |= 1u << at;
            switch (at)
            {
                case Do:
                    asked.What = question.Text();
                    break;
                case Date:
                    asked.Date = question.Date();
                    break;
                case Days:
                    asked.Days = question.Whole(int.MinValue, int.MaxValue);
                    break;
                case Rule:
                    asked.Rule = (RollRule)question.Choice(Rules);
                    break;
                case From:
                    asked.From = question.Date();
                    break;
                case To:
                    asked.To = question.Date();
                    break;
            }
        }
        if ((seen & 1u << Do) == 0)
            return asked;
        if (!Needs.TryGetValue(asked.What, out var needs))
        {
            question.Report("bad-value", $"There is nothing called {asked.What} to do. Known: {string.Join(", ", Needs.Keys)}.", "do");
            return asked;
        }
        for (var i = Date; i <= To; i++)
        {
            var (there, needed) = ((given & 1u << i) != 0, (needs & 1u << i) != 0);
            if (needed && !there)
                question.Report("missing-property", $"The property {Ask.Names[i]} is needed here.", Ask.Names[i]);
            if (there && !needed)
                question.Report("unknown-property", $"To {asked.What} needs no {Ask.Names[i]}.", Ask.Names[i]);
        }
        return asked;
    }

    private sealed class Asked
    {
        public string What = "";
        public LocalDate Date,
            From,
            To;
        public int Days;
        public RollRule Rule;
    }
}
