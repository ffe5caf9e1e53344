using System.Text.Json;
using Fid.Core.Pay;

namespace Fid.Core.Compute;

/// <summary>`pay.rate` and `pay.band`.</summary>
internal static class PayDoor
{
    private static readonly Shape Rate = new("amount", "per", "weeklyHours", "fullTimeHours", "daysPerWeek?", "payEvery");
    private static readonly Shape Band = new("pay", "min", "mid", "max");

    private static readonly Choices<PayPeriod> Periods = new(
        ("hour", PayPeriod.Hour), ("day", PayPeriod.Day), ("week", PayPeriod.Week), ("fortnight", PayPeriod.Fortnight),
        ("fourWeeks", PayPeriod.FourWeeks), ("halfMonth", PayPeriod.HalfMonth), ("month", PayPeriod.Month), ("year", PayPeriod.Year));

    private static readonly Choices<BandPosition> Positions = new(
        ("below", BandPosition.Below), ("within", BandPosition.Within), ("above", BandPosition.Above));

    public static void AnswerRate(Node question, Utf8JsonWriter writer)
    {
        var o = question.Object(Rate);
        var (amount, per, hours, full) = (o.Number("amount"), o.Choice("per", Periods), o.Number("weeklyHours"), o.Number("fullTimeHours"));
        decimal? days = o.Has("daysPerWeek") ? o.Number("daysPerWeek") : null;
        var every = o.Choice("payEvery", Periods);
        if (question.Problems.Count > 0 || PayRate.Of(amount, per, hours, full, days, every).Take(question) is not { } rate) return;
        writer.WriteStartObject();
        writer.WriteNumber("annual", rate.Annual);
        writer.WriteNumber("fullTimeAnnual", rate.FullTimeAnnual);
        writer.WriteNumber("hourly", rate.Hourly);
        writer.WriteNumber("perPeriod", rate.PerPeriod);
        writer.WriteEndObject();
    }

    public static void AnswerBand(Node question, Utf8JsonWriter writer)
    {
        var o = question.Object(Band);
        var (pay, min, mid, max) = (o.Number("pay"), o.Number("min"), o.Number("mid"), o.Number("max"));
        if (question.Problems.Count > 0 || PayBand.Of(pay, min, mid, max).Take(question) is not { } band) return;
        writer.WriteStartObject();
        writer.WriteNumber("compaRatio", band.CompaRatio);
        if (band.Penetration is { } penetration) writer.WriteNumber("penetration", penetration);
        else writer.WriteNull("penetration");
        writer.WriteString("position", Positions.Word(band.Position));
        writer.WriteEndObject();
    }
}
