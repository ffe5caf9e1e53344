using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Json;
using Fid.Core.Pay;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`pay.periods`: the periods of a pay group, with pay days and cut-offs.</summary>
internal static class PayPeriodsComputation
{
    private static readonly Shape Question = new("payGroup", "from", "to");
    private static readonly Shape Group = new("every", "firstPeriodStart?", "payDaysAfterEnd", "cutOffWorkingDays", "calendar");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        PayGroupTerms? terms = null;
        LocalDate from = default,
            to = default;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        terms = ReadGroup(ref question);
                        break;
                    case 1:
                        from = question.Date();
                        break;
                    default:
                        to = question.Date();
                        break;
                }
            }
        if (!question.IsSound || terms!.Periods(from, to).Take(ref question) is not { } runs)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("periods");
        foreach (var run in runs)
            Write(writer, run);
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    internal static PayGroupTerms ReadGroup(ref QuestionReader question)
    {
        var every = PayPeriod.Month;
        LocalDate? first = null;
        int days = 0,
            cutOff = 0;
        var calendar = WorkCalendar.EveryDay;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Group, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        every = (PayPeriod)question.Choice(PayComputation.Periods);
                        break;
                    case 1:
                        first = question.Date();
                        break;
                    case 2:
                        days = question.Whole(-366, 366);
                        break;
                    case 3:
                        cutOff = question.Whole(0, 366);
                        break;
                    default:
                        calendar = question.Calendar();
                        break;
                }
            }
        return new PayGroupTerms(every, first, days, cutOff, calendar);
    }

    internal static void Write(Utf8JsonWriter writer, PayRun run)
    {
        writer.WriteStartObject();
        writer.Date(JsonEncodedText.Encode("start"), run.Start);
        writer.Date(JsonEncodedText.Encode("end"), run.End);
        writer.Date(JsonEncodedText.Encode("payDate"), run.PayDate);
        writer.Date(JsonEncodedText.Encode("cutOff"), run.CutOff);
        writer.WriteEndObject();
    }
}
