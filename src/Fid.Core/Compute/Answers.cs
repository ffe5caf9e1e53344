using System.Text.Json;
using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Compute;

internal static class Answers
{
    /// <summary>Writes a date as ISO 8601, or null.</summary>
    public static void Date(this Utf8JsonWriter writer, string name, LocalDate? date)
    {
        writer.WritePropertyName(name);
        writer.Date(date);
    }

    public static void Date(this Utf8JsonWriter writer, LocalDate? date)
    {
        if (date is { } d)
        {
            Span<char> text = stackalloc char[10];
            d.ToDateOnly().TryFormat(text, out _, "o", System.Globalization.CultureInfo.InvariantCulture);
            writer.WriteStringValue(text);
        }
        else
            writer.WriteNullValue();
    }

    /// <summary>The answer of an outcome; otherwise its problems are noted and null comes back.</summary>
    public static T? Take<T>(this Outcome<T> outcome, Node question)
        where T : class
    {
        if (!outcome.Succeeded) question.Problems.AddRange(outcome.Problems);
        return outcome.Answer;
    }

    private static readonly Shape CalendarShape = new("rest", "holidays?");

    /// <summary>Reads a calendar: a rest mask and holidays.</summary>
    public static WorkCalendar Calendar(this Node node)
    {
        var o = node.Object(CalendarShape);
        var holidays = o.Items("holidays", n => n.Date());
        if (o["rest"] is not { IsThere: true } rest) return WorkCalendar.EveryDay;
        var text = rest.Text();
        if (RestMask.TryParse(text, out var mask)) return new WorkCalendar(mask, holidays);
        if (text == "1111111")
            rest.Report("no-working-day", "This calendar has no working day at all. Leave at least one day of the week as 0.");
        else if (rest.Json.ValueKind == JsonValueKind.String)
            rest.Report("bad-value", "The rest mask is seven characters, Monday first: 1 for rest, 0 for work.");
        return WorkCalendar.EveryDay;
    }
}
