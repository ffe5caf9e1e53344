using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.People;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What somebody costs the firm, and the leave of the year they start in.</summary>
internal static class CostReading
{
    /// <summary>The cost of a year from the start on; null where something is missing to work it out.</summary>
    /// <param name="values">What the reader sees of the record; all that makes up pay.</param>
    /// <param name="trainingHours">Hours a year that the job spends learning.</param>
    public static CostResponse? Cost(PayReading pay, IReadOnlyDictionary<string, JsonElement?> values, LocalDate start, decimal trainingHours)
    {
        if (
            pay.Rate(values) is not { } rate
            || pay.Group(values) is not { } group
            || values.Number("weekly_hours") is not { } hours
            || pay.Components(values, start, start) is not { } components
            || components.Whole(PayGroupEntry.Every(group), rate.PerPeriod, start).Answer is not { } period
        )
            return null;
        var annual = period.EmployerCost * PayRate.PeriodsPerYear(PayGroupEntry.Every(group));
        var cost = LoadedCost.Of(
            [annual],
            hours + components.Own.Sum(o => o.Element.On(start)?.Element?.WeeklyHours ?? 0),
            hours / PayReading.WorkingDaysPerWeek,
            values.Number("leave_days") ?? 0,
            Holidays(pay, values.Text("holiday_calendar"), start),
            trainingHours
        );
        return cost.Answer is { } loaded ? new CostResponse(loaded.AnnualCost, loaded.ProductiveHours, loaded.LoadedHourly) : null;
    }

    /// <summary>The leave of the calendar year somebody starts in; null where the record does not say how many days a year has.</summary>
    public static LeaveResponse? Leave(IReadOnlyDictionary<string, JsonElement?> values, LocalDate start, decimal fullTimeHours)
    {
        if (values.Number("leave_days") is not { } days || values.Number("weekly_hours") is not { } hours)
            return null;
        var (from, to) = (new LocalDate(start.Year, 1, 1), new LocalDate(start.Year, 12, 31));
        var share = Math.Min(1, hours / fullTimeHours);
        return new LeaveResponse(start.Year, LeaveEntitlement.Days(days, share, start, from, to, LeaveRounding.UpHalf), days, Money.Decimals(share, 3));
    }

    // Weekdays that a calendar takes off in the year from the start on.
    private static int Holidays(PayReading pay, string? calendar, LocalDate start)
    {
        var to = start.PlusYears(1).PlusDays(-1);
        return Math.Max(0, pay.Calendars[null].Count(start, to) - pay.Calendars[calendar].Count(start, to));
    }
}

/// <summary>What somebody costs the firm.</summary>
/// <param name="AnnualCost">Gross pay of a year and what the firm pays beside it.</param>
/// <param name="ProductiveHours">The hours of it that are worked.</param>
/// <param name="LoadedHourly">What each of them costs.</param>
public sealed record CostResponse(decimal AnnualCost, decimal ProductiveHours, decimal LoadedHourly);

/// <summary>The leave of the year somebody starts in, rounded up to half a day.</summary>
/// <param name="Days">How many days it is.</param>
/// <param name="WholeYear">How many a whole year at full time has.</param>
/// <param name="Share">The share of full time they work.</param>
public sealed record LeaveResponse(int Year, decimal Days, decimal WholeYear, decimal Share);
