using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.Pay;

namespace Fid.Core.Compute;

/// <summary>`pay.rate` and `pay.band`.</summary>
internal static class PayComputation
{
    private static readonly Shape Rate = new("amount", "per", "weeklyHours", "fullTimeHours", "daysPerWeek?", "payEvery");
    private static readonly Shape Band = new("pay", "min", "mid", "max");

    internal static readonly Choices Periods = new("hour", "day", "week", "fortnight", "fourWeeks", "halfMonth", "month", "year");
    private static readonly Choices Positions = new("below", "within", "above");

    public static void AnswerRate(ref QuestionReader question, Utf8JsonWriter writer)
    {
        decimal amount = 0,
            hours = 0,
            full = 0;
        decimal? days = null;
        PayPeriod per = default,
            every = default;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Rate, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        amount = question.Number();
                        break;
                    case 1:
                        per = (PayPeriod)question.Choice(Periods);
                        break;
                    case 2:
                        hours = question.Number();
                        break;
                    case 3:
                        full = question.Number();
                        break;
                    case 4:
                        days = question.Number();
                        break;
                    default:
                        every = (PayPeriod)question.Choice(Periods);
                        break;
                }
            }
        if (!question.IsSound || PayRate.Of(amount, per, hours, full, days, every).Take(ref question) is not { } rate)
            return;
        writer.WriteStartObject();
        writer.WriteNumber("annual", rate.Annual);
        writer.WriteNumber("fullTimeAnnual", rate.FullTimeAnnual);
        writer.WriteNumber("hourly", rate.Hourly);
        writer.WriteNumber("perPeriod", rate.PerPeriod);
        writer.WriteEndObject();
    }

    public static void AnswerBand(ref QuestionReader question, Utf8JsonWriter writer)
    {
        Span<decimal> figures = stackalloc decimal[4];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Band, ref seen) is var at and >= 0)
                figures[at] = question.Number();
        if (!question.IsSound || PayBand.Of(figures[0], figures[1], figures[2], figures[3]).Take(ref question) is not { } band)
            return;
        writer.WriteStartObject();
        writer.WriteNumber("compaRatio", band.CompaRatio);
        if (band.Penetration is { } penetration)
            writer.WriteNumber("penetration", penetration);
        else
            writer.WriteNull("penetration");
        writer.WriteString("position", Positions.Word((int)band.Position));
        writer.WriteEndObject();
    }
}
