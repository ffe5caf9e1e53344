using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Pay;

/// <summary>By what rule a group of people is paid.</summary>
/// <param name="Every">How long a period is: from a week to a year.</param>
/// <param name="FirstPeriodStart">The first day of the first period. Needed where periods are counted in weeks; where they are
/// months or years it says on which day they begin (the first, when left out); half months are always 1–15 and 16–end.</param>
/// <param name="PayDaysAfterEnd">Days from a period's last day to its pay day, before rest days are avoided; may be negative.</param>
/// <param name="CutOffWorkingDays">Working days from the cut-off to the pay day.</param>
/// <param name="Calendar">The working days of whoever pays.</param>
public sealed record PayGroupTerms(PayPeriod Every, LocalDate? FirstPeriodStart, int PayDaysAfterEnd, int CutOffWorkingDays, WorkCalendar Calendar)
{
    /// <summary>The most periods that are worked out at once.</summary>
    public const int Most = 10_000;

    /// <summary>
    /// Every period that touches the days from <paramref name="from"/> to <paramref name="to"/>, both included, in order; none
    /// that begins before the first. The pay day is moved back to a working day; the cut-off lies that many working days before it.
    /// </summary>
    public Result<IReadOnlyList<PayRun>> Periods(LocalDate from, LocalDate to)
    {
        if (to < from)
            return Failed("/to", "reversed-range", "The last day comes before the first. Swap them.");
        if (Every is PayPeriod.Hour or PayPeriod.Day)
            return Failed("/payGroup/every", "bad-value", "People are paid by the week, fortnight, four weeks, half month, month or year.");
        if (DaysIn(Every) is not null && FirstPeriodStart is null)
            return Failed(
                "/payGroup/firstPeriodStart",
                "missing-property",
                "Say on which day the first period begins: periods counted in weeks have no other start."
            );
        if (Period.DaysBetween(from, to) / ShortestDays(Every) > Most)
            return Failed("/to", "out-of-range", $"Ask for at most {Most} periods at once.");

        var runs = new List<PayRun>();
        for (var at = FirstIndex(from); ; at++)
        {
            if (StartOf(at) is not { } start || start > to)
                break;
            if (StartOf(at + 1)?.PlusDays(-1) is not { } end)
                return Failed("/to", "out-of-range", "The periods fall outside the years 1 to 9999.");
            if (end < from)
                continue;
            var pay = Add(end, PayDaysAfterEnd) is { } due ? Calendar.Roll(due, RollRule.Preceding) : null;
            var cutOff = pay is { } day ? Calendar.Add(day, -CutOffWorkingDays) : null;
            if (pay is null || cutOff is null)
                return Failed("/to", "out-of-range", "A pay day falls outside the years 1 to 9999.");
            runs.Add(new PayRun(start, end, pay.Value, cutOff.Value));
        }
        return runs;
    }

    private static Result<IReadOnlyList<PayRun>> Failed(string path, string code, string message) =>
        Result<IReadOnlyList<PayRun>>.Failed(new Problem(path, code, message));

    /// <summary>The days of a period counted in weeks; null for the others.</summary>
    private static int? DaysIn(PayPeriod every) =>
        every switch
        {
            PayPeriod.Week => 7,
            PayPeriod.Fortnight => 14,
            PayPeriod.FourWeeks => 28,
            _ => null,
        };

    private static int ShortestDays(PayPeriod every) => DaysIn(every) ?? (every == PayPeriod.HalfMonth ? 13 : 28);

    // Periods are numbered from the first one, or where there is none from the year 1. One before the wanted is fine: it is passed over.
    private int FirstIndex(LocalDate from)
    {
        var anchor = FirstPeriodStart ?? new LocalDate(1, 1, 1);
        var months = (from.Year - anchor.Year) * 12 + from.Month - anchor.Month;
        var index = Every switch
        {
            PayPeriod.HalfMonth => 2 * months - 2,
            PayPeriod.Month => months - 1,
            PayPeriod.Year => months / 12 - 2,
            _ => Period.DaysBetween(anchor, from) / DaysIn(Every)!.Value - 1,
        };
        return Math.Max(index, 0);
    }

    private LocalDate? StartOf(int index)
    {
        var anchor = FirstPeriodStart ?? new LocalDate(1, 1, 1);
        switch (Every)
        {
            case PayPeriod.HalfMonth:
                var half = anchor.Month - 1 + (anchor.Day <= 15 ? 0.0 : 0.5);
                var at = (int)(half * 2) + index;
                var year = anchor.Year + at / 24;
                return year > 9999 ? null : new LocalDate(year, at % 24 / 2 + 1, at % 2 == 0 ? 1 : 16);
            case PayPeriod.Month:
                return AddMonths(anchor, index);
            case PayPeriod.Year:
                return AddMonths(anchor, 12 * index);
            default:
                return Add(anchor, (long)DaysIn(Every)!.Value * index);
        }
    }

    private static LocalDate? Add(LocalDate date, long days) => Day.DateOrNull(Day.Number(date) + days);

    private static LocalDate? AddMonths(LocalDate date, int months) => date.Year + (date.Month - 1 + months) / 12 > 9999 ? null : date.PlusMonths(months);
}

/// <summary>A pay period and when it is paid.</summary>
/// <param name="Start">Its first day.</param>
/// <param name="End">Its last day, included.</param>
/// <param name="PayDate">When it is paid.</param>
/// <param name="CutOff">The last day on which what is approved still makes this run.</param>
public sealed record PayRun(LocalDate Start, LocalDate End, LocalDate PayDate, LocalDate CutOff);
