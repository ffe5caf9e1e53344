using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Pay;

/// <summary>Pay of a period in which it changes: parts for the days of each amount.</summary>
public static class SplitPay
{
    /// <summary>
    /// What each amount pays of a period. The days are shared out so that no cent is lost or gained by rounding: the parts up to any day add up
    /// to what they come to unrounded, rounded once. Where one amount holds for the whole period, it is paid whole.
    /// </summary>
    /// <param name="from">The period's first day.</param>
    /// <param name="to">Its last day, included.</param>
    /// <param name="amounts">What a whole period pays from each day on, in the order of days; the first may begin earlier. Before the first, and
    /// from one of 0 on, nothing is paid.</param>
    /// <param name="calendar">Whose working days are shared out; null for calendar days.</param>
    /// <returns>A part for each amount that holds on a day of the period.</returns>
    public static IReadOnlyList<PartPay> Of(LocalDate from, LocalDate to, IReadOnlyList<AmountFrom> amounts, WorkCalendar? calendar)
    {
        int Days(LocalDate first, LocalDate last) =>
            last < first ? 0
            : calendar is null ? Period.DaysBetween(first, last) + 1
            : calendar.Count(first, last);
        return Of(from, to, amounts, new DayCount(Days, Days(from, to)));
    }

    // The same by another count of days, or of what is done on them.
    internal static IReadOnlyList<PartPay> Of(LocalDate from, LocalDate to, IReadOnlyList<AmountFrom> amounts, DayCount count)
    {
        var (parts, exact, paid) = (new List<PartPay>(), 0m, 0m);
        for (var i = 0; i < amounts.Count; i++)
        {
            var first = LocalDate.Max(amounts[i].From, from);
            var last = i + 1 < amounts.Count ? LocalDate.Min(amounts[i + 1].From.PlusDays(-1), to) : to;
            if (last < first)
                continue;
            var days = count.Of(first, last);
            // Summed before it is divided: thirds of 100 come to 100 again.
            exact += days * amounts[i].Amount * count.Times;
            var upTo = count.Whole == 0 ? 0 : Money.Round(exact / count.Whole);
            parts.Add(new PartPay(first, last, days, count.Whole, upTo - paid));
            paid = upTo;
        }
        return parts;
    }
}

/// <summary>How days are weighed against each other.</summary>
/// <param name="Of">What the days from one to another count, both included.</param>
/// <param name="Whole">What all that an amount pays for counts; perhaps nothing.</param>
/// <param name="Times">How many periods that is.</param>
internal sealed record DayCount(Func<LocalDate, LocalDate, int> Of, int Whole, decimal Times = 1);

/// <summary>What a whole period pays from a day on.</summary>
public sealed record AmountFrom(LocalDate From, decimal Amount);

/// <summary>What some days of a period pay.</summary>
/// <param name="From">The first of them.</param>
/// <param name="To">The last of them, included.</param>
/// <param name="Part">How many of them count.</param>
/// <param name="Whole">How many days of the whole period count.</param>
public sealed record PartPay(LocalDate From, LocalDate To, int Part, int Whole, decimal Amount);
