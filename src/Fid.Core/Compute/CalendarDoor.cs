using System.Text.Json;
using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`calendar`: adding, counting and rolling dates over working days.</summary>
internal static class CalendarDoor
{
    private static readonly Shape Question = new("calendar", "ask");
    private static readonly Shape Add = new("do", "date", "days");
    private static readonly Shape Count = new("do", "from", "to");
    private static readonly Shape Roll = new("do", "date", "rule");

    private static readonly Choices<RollRule> Rules = new(
        ("following", RollRule.Following), ("preceding", RollRule.Preceding), ("modifiedFollowing", RollRule.ModifiedFollowing));

    public static void Answer(Node question, Utf8JsonWriter writer)
    {
        var o = question.Object(Question);
        var calendar = o["calendar"] is { IsThere: true } c ? c.Calendar() : WorkCalendar.EveryDay;
        writer.WriteStartObject();
        writer.WriteStartArray("answers");
        o.Items("ask", ask =>
        {
            AnswerOne(ask, calendar, writer);
            return true;
        });
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static void AnswerOne(Node ask, WorkCalendar calendar, Utf8JsonWriter writer)
    {
        var before = ask.Problems.Count;
        switch (What(ask))
        {
            case "add":
                var add = ask.Object(Add);
                var (date, days) = (add.Date("date"), add.Whole("days", int.MinValue, int.MaxValue));
                if (ask.Problems.Count == before) Write(calendar.Add(date, days));
                break;
            case "count":
                var count = ask.Object(Count);
                var (from, to) = (count.Date("from"), count.Date("to"));
                if (ask.Problems.Count == before) writer.WriteNumberValue(calendar.Count(from, to));
                break;
            case "roll":
                var roll = ask.Object(Roll);
                var (day, rule) = (roll.Date("date"), roll.Choice("rule", Rules));
                if (ask.Problems.Count == before) Write(calendar.Roll(day, rule));
                break;
            case { } other:
                ask.Report("bad-value", $"There is nothing called {other} to do. Known: add, count, roll.", "do");
                break;
        }

        void Write(LocalDate? answer)
        {
            if (answer is null) ask.Report("out-of-range", "The answer falls outside the years 1 to 9999.");
            else writer.Date(answer);
        }
    }

    private static string? What(Node ask)
    {
        if (ask.Json.ValueKind != JsonValueKind.Object)
            ask.Report("wrong-type", "This is to be an object.");
        else if (!ask.Json.TryGetProperty("do", out var what))
            ask.Report("missing-property", "The property do is needed here.", "do");
        else if (what.ValueKind != JsonValueKind.String)
            ask.Report("wrong-type", "This is to be a text.", "do");
        else
            return what.GetString();
        return null;
    }
}
