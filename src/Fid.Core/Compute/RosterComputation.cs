using System.Text.Json;
using Fid.Core.Clock;
using Fid.Core.Json;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Compute;

/// <summary>`clock.roster`: who works when, for a shift pattern.</summary>
internal static class RosterComputation
{
    private static readonly Shape Question = new("timeZone", "pattern", "holidays?", "onHoliday?", "from", "to");
    private static readonly Shape Terms = new("timeZone", "pattern", "holidays?", "onHoliday?");
    private static readonly Shape Pattern = new("cycleStart", "days", "shifts");
    private static readonly Shape ShiftShape = new("start", "end", "unpaidBreak?");
    private static readonly Choices Holidays = new("off", "worked");
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("HH':'mm");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var terms = Nothing;
        LocalDate from = default,
            to = default;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 4:
                        from = question.Date();
                        break;
                    case 5:
                        to = question.Date();
                        break;
                    default:
                        terms = ReadTerm(ref question, at, terms);
                        break;
                }
            }
        if (!question.IsSound || terms.On(from, to).Take(ref question) is not { } roster)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("days");
        foreach (var day in roster.Days)
            Write(writer, day);
        writer.WriteEndArray();
        writer.WriteNumber("paidMinutes", roster.PaidMinutes);
        writer.WriteEndObject();
    }

    /// <summary>Reads by what a roster is laid out, for a computation that says itself for which days.</summary>
    public static RosterTerms ReadTerms(ref QuestionReader question)
    {
        var terms = Nothing;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Terms, ref seen) is var at and >= 0)
                terms = ReadTerm(ref question, at, terms);
        return terms;
    }

    private static RosterTerms Nothing =>
        new(DateTimeZone.Utc, new ShiftCycle(default, [], new Dictionary<string, Shift>()), new HashSet<LocalDate>(), OnHoliday.Off);

    private static RosterTerms ReadTerm(ref QuestionReader question, int at, RosterTerms terms) =>
        at switch
        {
            0 => terms with { Zone = ReadZone(ref question) },
            1 => terms with { Cycle = ReadPattern(ref question) },
            2 => terms with { Holidays = question.Items((ref q) => q.Date()).ToHashSet() },
            _ => terms with { OnHoliday = (OnHoliday)question.Choice(Holidays) },
        };

    private static void Write(Utf8JsonWriter writer, RosterDay day)
    {
        writer.WriteStartObject();
        writer.Date(JsonEncodedText.Encode("date"), day.Date);
        writer.WriteString("shift", day.Shift);
        writer.WriteBoolean("holiday", day.Holiday);
        if (day is { Start: { } start, End: { } end })
        {
            writer.WriteString("start", OffsetDateTimePattern.Rfc3339.Format(start));
            writer.WriteString("end", OffsetDateTimePattern.Rfc3339.Format(end));
        }
        writer.WriteNumber("paidMinutes", day.PaidMinutes);
        writer.WriteEndObject();
    }

    private static DateTimeZone ReadZone(ref QuestionReader question)
    {
        var name = question.Text();
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) is { } zone)
            return zone;
        question.Report("unknown-time-zone", "Name a time zone of the IANA database, such as Europe/Dublin.");
        return DateTimeZone.Utc;
    }

    private static ShiftCycle ReadPattern(ref QuestionReader question)
    {
        LocalDate start = default;
        List<string> days = [];
        Dictionary<string, Shift> shifts = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Pattern, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        start = question.Date();
                        break;
                    case 1:
                        days = question.Items((ref q) => q.Id());
                        break;
                    default:
                        shifts = question.Named(ReadShift);
                        break;
                }
            }
        return new ShiftCycle(start, days, shifts);
    }

    private static Shift ReadShift(ref QuestionReader question)
    {
        LocalTime start = default,
            end = default;
        var unpaid = 0;
        var seen = 0u;
        if (question.Object())
            while (question.Property(ShiftShape, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        start = ReadTime(ref question);
                        break;
                    case 1:
                        end = ReadTime(ref question);
                        break;
                    default:
                        unpaid = question.Whole(0, 1440);
                        break;
                }
            }
        return new Shift(start, end, unpaid);
    }

    private static LocalTime ReadTime(ref QuestionReader question)
    {
        var text = question.Text();
        if (Time.Parse(text).TryGetValue(default, out var time))
            return time;
        question.Report("bad-time", "A time is written as hours and minutes, such as 06:00.");
        return default;
    }
}
