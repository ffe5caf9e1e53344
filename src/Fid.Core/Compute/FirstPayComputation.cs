using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Clock;
using Fid.Core.Json;
using Fid.Core.Pay;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`pay.first`: what somebody new is paid first, and when.</summary>
internal static class FirstPayComputation
{
    private static readonly Shape Question = new("payGroup", "start", "approvedOn", "workCalendar", "amountPerPeriod", "method", "roster?");
    private static readonly Choices Methods = new("calendarDays", "workingDays", "annual260", "rosteredHours");

    private static readonly JsonEncodedText FirstPeriod = JsonEncodedText.Encode("firstPeriod"),
        PaidWith = JsonEncodedText.Encode("paidWith"),
        Line = JsonEncodedText.Encode("period");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        PayGroupTerms? terms = null;
        LocalDate start = default,
            approved = default;
        var calendar = WorkCalendar.EveryDay;
        var amount = 0m;
        var method = PartMethod.CalendarDays;
        RosterTerms? roster = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        terms = PayPeriodsComputation.ReadGroup(ref question);
                        break;
                    case 1:
                        start = question.Date();
                        break;
                    case 2:
                        approved = question.Date();
                        break;
                    case 3:
                        calendar = question.Calendar();
                        break;
                    case 4:
                        amount = question.Number();
                        break;
                    case 5:
                        method = (PartMethod)question.Choice(Methods);
                        break;
                    default:
                        roster = RosterComputation.ReadTerms(ref question);
                        break;
                }
            }
        if (!question.IsSound || FirstPay.Of(new FirstPayQuestion(terms!, start, approved, calendar, amount, method, roster)).Take(ref question) is not { } pay)
            return;
        writer.WriteStartObject();
        writer.WritePropertyName(FirstPeriod);
        PayPeriodsComputation.Write(writer, pay.FirstPeriod);
        writer.WritePropertyName(PaidWith);
        PayPeriodsComputation.Write(writer, pay.PaidWith);
        writer.WriteNumber("part", pay.Part);
        writer.WriteNumber("whole", pay.Whole);
        writer.WriteStartArray("lines");
        foreach (var line in pay.Lines)
        {
            writer.WriteStartObject();
            writer.Date(Line, line.Period);
            writer.WriteNumber("amount", line.Amount);
            writer.WriteBoolean("arrears", line.IsArrears);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteNumber("total", pay.Total);
        writer.WriteEndObject();
    }
}
