using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.People;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`service`: since when somebody belongs to the firm; `leave`: what leave is left of a year somebody starts in.</summary>
internal static class ServiceComputation
{
    private static readonly Shape ServiceQuestion = new("employments", "bridgeDays");
    private static readonly Shape Employment = new("start", "end?");
    private static readonly Shape LeaveQuestion = new("days", "fte", "start", "yearStart", "yearEnd", "rounding");

    private static readonly Choices Roundings = new("none", "upHalf", "nearestHalf", "upDay", "nearestDay");

    private static readonly JsonEncodedText OriginalHire = JsonEncodedText.Encode("originalHire"),
        LastHire = JsonEncodedText.Encode("lastHire"),
        AdjustedService = JsonEncodedText.Encode("adjustedService");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<(LocalDate, LocalDate?)> employments = [];
        var bridgeDays = 0;
        var seen = 0u;
        if (question.Object())
            while (question.Property(ServiceQuestion, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    employments = question.Items(ReadEmployment);
                else
                    bridgeDays = question.Whole(0, 100_000);
            }
        if (!question.IsSound || ServiceDates.Of(employments, bridgeDays).Take(ref question) is not { } dates)
            return;
        writer.WriteStartObject();
        writer.Date(OriginalHire, dates.OriginalHire);
        writer.Date(LastHire, dates.LastHire);
        writer.Date(AdjustedService, dates.AdjustedService);
        writer.WriteEndObject();
    }

    public static void AnswerLeave(ref QuestionReader question, Utf8JsonWriter writer)
    {
        decimal days = 0,
            fte = 0;
        LocalDate start = default,
            yearStart = default,
            yearEnd = default;
        var rounding = LeaveRounding.None;
        var seen = 0u;
        if (question.Object())
            while (question.Property(LeaveQuestion, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        days = Amount(ref question, 366);
                        break;
                    case 1:
                        fte = Amount(ref question, 10);
                        break;
                    case 2:
                        start = question.Date();
                        break;
                    case 3:
                        yearStart = question.Date();
                        break;
                    case 4:
                        yearEnd = question.Date();
                        break;
                    default:
                        rounding = (LeaveRounding)question.Choice(Roundings);
                        break;
                }
            }
        if (question.IsSound && yearEnd < yearStart)
            question.Report("not-in-order", "The leave year does not end before it starts.", "yearEnd");
        if (!question.IsSound)
            return;
        writer.WriteStartObject();
        writer.WriteNumber("days", LeaveEntitlement.Days(days, fte, start, yearStart, yearEnd, rounding));
        writer.WriteEndObject();
    }

    private static (LocalDate, LocalDate?) ReadEmployment(ref QuestionReader question)
    {
        LocalDate start = default;
        LocalDate? end = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Employment, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    start = question.Date();
                else
                    end = question.Date();
            }
        return (start, end);
    }

    private static decimal Amount(ref QuestionReader question, decimal most)
    {
        var amount = question.Number();
        if (amount < 0 || amount > most)
            question.Report("out-of-range", $"This is to be from 0 to {most}.");
        return amount;
    }
}
