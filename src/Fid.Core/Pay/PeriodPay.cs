using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What a run pays of one period.</summary>
/// <param name="Run">The period.</param>
/// <param name="Share">The days of it that are paid, of how many; paid minutes where it is counted by rostered hours.</param>
/// <param name="Amount">What is paid of it: the sum of what each of its amounts pays.</param>
/// <param name="Working">How it was worked out: a sentence for each amount that holds on days of it.</param>
public sealed record PeriodPay(PayRun Run, Share Share, decimal Amount, string Working)
{
    /// <summary>
    /// Works it out. A period in which somebody starts or ends is paid in part, as the question counts it; one in which the amount changes is
    /// shared out over the days of each, so that no cent is lost. A whole period of one amount is paid whole.
    /// </summary>
    /// <param name="question">Whose pay it is.</param>
    /// <param name="run">The period; one on a day of which they work.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    /// <returns>Problems of the roster under "/roster"; "missing-property" for rostered hours without a roster.</returns>
    public static Result<PeriodPay> Of(FirstPayQuestion question, PayRun run, PayWording? wording = null)
    {
        var words = wording ?? PayWording.English;
        var (from, to) = (LocalDate.Max(question.Start, run.Start), question.End is { } end ? LocalDate.Min(end, run.End) : run.End);
        AmountFrom[] amounts = [.. Holding(question, from, to)];
        var isPart = question.Start >= run.Start || to < run.End;
        if (!isPart && amounts.Length == 1)
            return Whole(run, new Share(1, 1), amounts[0].Amount, words);
        var counted = Count(question, run);
        if (counted.Answer is not { } count)
            return Result<PeriodPay>.Failed(counted.Problems);
        if (isPart && question.Method == PartMethod.Annual260)
            count = count with { Whole = FirstPay.WorkingDaysOfYear, Times = PayRate.PeriodsPerYear(question.Terms.Every) };
        var share = new Share(to < from ? 0 : count.Of(from, to), count.Whole);
        if (amounts.Length == 1 && share.Part == share.Whole && share.Whole > 0)
            return Whole(run, share, amounts[0].Amount, words);
        var parts = SplitPay.Of(from, to, amounts, count);
        var workings = parts.Select((part, i) => words.PartOfPeriod(question.Method, part, amounts[i].Amount * count.Times));
        return new PeriodPay(run, share, parts.Sum(p => p.Amount), string.Join(" ", workings));
    }

    // The amounts that hold on some days, in order; each on at least one of them.
    private static IEnumerable<AmountFrom> Holding(FirstPayQuestion question, LocalDate from, LocalDate to)
    {
        AmountFrom[] all = [new(question.Start, question.AmountPerPeriod), .. question.Later];
        return all.Where((a, i) => a.From <= to && (i == all.Length - 1 || all[i + 1].From > from));
    }

    private static Result<DayCount> Count(FirstPayQuestion question, PayRun run)
    {
        switch (question.Method)
        {
            case PartMethod.CalendarDays:
                return new DayCount(DaysOf, DaysOf(run.Start, run.End));
            case PartMethod.WorkingDays or PartMethod.Annual260:
                return new DayCount(question.WorkCalendar.Count, question.WorkCalendar.Count(run.Start, run.End));
        }
        if (question.Roster is not { } roster)
            return Result<DayCount>.Failed(new Problem("/roster", "missing-property", "Pay by rostered hours needs the roster."));
        var rostered = roster.On(run.Start, run.End);
        return rostered.Answer is { } days
            ? new DayCount((first, last) => days.Days.Where(d => first <= d.Date && d.Date <= last).Sum(d => d.PaidMinutes), days.PaidMinutes)
            : Result<DayCount>.Failed([.. rostered.Problems.Select(p => p.Under("/roster"))]);
    }

    private static PeriodPay Whole(PayRun run, Share share, decimal amount, PayWording wording) =>
        new(run, share, Money.Round(amount), wording.WholePeriod(amount));

    private static int DaysOf(LocalDate from, LocalDate to) => Period.DaysBetween(from, to) + 1;
}

/// <summary>A part of something that is counted.</summary>
/// <param name="Part">How much of it.</param>
/// <param name="Whole">All of it; perhaps nothing.</param>
public sealed record Share(int Part, int Whole);
