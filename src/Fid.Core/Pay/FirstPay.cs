using Fid.Core.Calendars;
using Fid.Core.Clock;
using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What somebody new is paid first, and when.</summary>
/// <param name="FirstPeriod">The period in which they start.</param>
/// <param name="PaidWith">The run that pays them first: that of the first period, or a later one where its cut-off was missed.</param>
/// <param name="Part">The days of the first period that are paid; paid minutes where it is counted by rostered hours.</param>
/// <param name="Whole">What it is a part of: the days of the period, 260 working days of a year, or the period's paid minutes.</param>
/// <param name="Lines">What is paid of each period, from the first one on.</param>
/// <param name="Total">The sum of the lines.</param>
public sealed record FirstPay(PayRun FirstPeriod, PayRun PaidWith, int Part, int Whole, IReadOnlyList<FirstPayLine> Lines, decimal Total)
{
    /// <summary>The working days of a year by which <see cref="PartMethod.Annual260"/> counts.</summary>
    public const int WorkingDaysOfYear = 260;

    // Long enough for two periods of a year; where the cut-off lies further from its period it is looked for further.
    private const int FirstLook = 800;

    /// <summary>
    /// Works it out. The record makes the first run whose cut-off is on or after its approval; periods before that come with it as arrears. Of
    /// the first period the days from the start on are paid, of every other the whole. Each line is rounded to the minor unit, half away from zero.
    /// </summary>
    /// <param name="question">Whose first pay it is.</param>
    /// <param name="wording">In whose words the working is shown; English where left out.</param>
    /// <returns>Problems by the path in the question: those of <see cref="PayGroupTerms.Periods"/>, and of the roster under "/roster";
    /// "missing-property" for rostered hours without a roster; "out-of-range" for a start before the first period of the group, an amount that is
    /// negative or above a million million, or a run after the year 9999.</returns>
    public static Result<FirstPay> Of(FirstPayQuestion question, PayWording? wording = null)
    {
        var (terms, start, approved, amount) = (question.Terms, question.Start, question.ApprovedOn, question.AmountPerPeriod);
        if (amount is < 0 or > Money.Most)
            return Failed("/amountPerPeriod", "Pay is 0 or more, and at most a million million.");
        if (terms.Periods(start, start) is var first && first.Answer is null)
            return Result<FirstPay>.Failed([.. first.Problems.Select(AtStart)]);
        if (first.Answer!.Count == 0)
            return Failed("/start", "The start lies before the first period of the pay group. Choose a later day, or begin the periods earlier.");
        for (var days = FirstLook; ; days *= 2)
        {
            // A run is never before its approval, so there is nothing to find before that.
            if (Day.DateOrNull(Day.Number(LocalDate.Max(start, approved)) + days) is not { } to || terms.Periods(start, to).Answer is not { } runs)
                return Failed("/approvedOn", "No run that this could be paid with lies in the years up to 9999, or within ten thousand periods.");
            var with = runs.TakeWhile(r => r.CutOff < approved).Count();
            if (with == runs.Count)
                continue;
            var counted = PartOf(question, runs[0]);
            return counted.Answer is { } share ? Pay(question, runs, with, share, wording ?? PayWording.English) : Result<FirstPay>.Failed(counted.Problems);
        }
    }

    // What is paid of the first period, and of how much.
    private static Result<Share> PartOf(FirstPayQuestion question, PayRun first)
    {
        var (start, calendar) = (question.Start, question.WorkCalendar);
        switch (question.Method)
        {
            case PartMethod.CalendarDays:
                return new Share(DaysOf(start, first.End), DaysOf(first.Start, first.End));
            case PartMethod.WorkingDays:
                return new Share(calendar.Count(start, first.End), calendar.Count(first.Start, first.End));
            case PartMethod.Annual260:
                return new Share(calendar.Count(start, first.End), WorkingDaysOfYear);
        }
        if (question.Roster is not { } roster)
            return Result<Share>.Failed(new Problem("/roster", "missing-property", "Pay by rostered hours needs the roster."));
        var rostered = roster.On(first.Start, first.End);
        return rostered.Answer is { } days
            ? new Share(days.Days.Where(d => d.Date >= start).Sum(d => d.PaidMinutes), days.PaidMinutes)
            : Result<Share>.Failed([.. rostered.Problems.Select(p => p.Under("/roster"))]);
    }

    private static FirstPay Pay(FirstPayQuestion question, IReadOnlyList<PayRun> runs, int with, Share share, PayWording wording)
    {
        var (amount, (part, whole)) = (question.AmountPerPeriod, share);
        var ofWhole = question.Method == PartMethod.Annual260 ? amount * PayRate.PeriodsPerYear(question.Terms.Every) : amount;
        FirstPayLine[] lines =
        [
            .. runs.Take(with + 1)
                .Select(
                    (run, i) =>
                        i > 0 || (part == whole && whole > 0)
                            ? new FirstPayLine(run.Start, Money.Round(amount), IsArrears: i < with, wording.WholePeriod(amount))
                            // Multiplied first: a third of 300 is 100.
                            : new FirstPayLine(
                                run.Start,
                                Money.Round(whole == 0 ? 0 : part * ofWhole / whole),
                                IsArrears: i < with,
                                wording.PartOfPeriod(question.Method, share, ofWhole)
                            )
                ),
        ];
        return new FirstPay(runs[0], runs[with], part, whole, lines, lines.Sum(l => l.Amount));
    }

    private static int DaysOf(LocalDate from, LocalDate to) => Period.DaysBetween(from, to) + 1;

    private static Problem AtStart(Problem problem) => problem.Path is "/from" or "/to" ? problem with { Path = "/start" } : problem;

    private static Result<FirstPay> Failed(string path, string message) => Result<FirstPay>.Failed(new Problem(path, "out-of-range", message));
}

/// <summary>Whose first pay is asked for.</summary>
/// <param name="Terms">By what rule they are paid.</param>
/// <param name="Start">Their first day.</param>
/// <param name="ApprovedOn">When their record is approved, and so can be paid.</param>
/// <param name="WorkCalendar">Their own working days.</param>
/// <param name="AmountPerPeriod">What a whole period pays.</param>
/// <param name="Method">By what the part of the first period is counted.</param>
/// <param name="Roster">When they work; needed where it is counted by rostered hours.</param>
public sealed record FirstPayQuestion(
    PayGroupTerms Terms,
    LocalDate Start,
    LocalDate ApprovedOn,
    WorkCalendar WorkCalendar,
    decimal AmountPerPeriod,
    PartMethod Method,
    RosterTerms? Roster = null
);

/// <summary>A part of something that is counted.</summary>
/// <param name="Part">How much of it.</param>
/// <param name="Whole">All of it; perhaps nothing.</param>
public sealed record Share(int Part, int Whole);

/// <summary>What a run pays of one period.</summary>
/// <param name="Period">The period's first day.</param>
/// <param name="IsArrears">Whether the period is over and its own run missed.</param>
/// <param name="Working">A sentence that shows how it was worked out.</param>
public sealed record FirstPayLine(LocalDate Period, decimal Amount, bool IsArrears, string Working);

/// <summary>By what a part of a period is counted.</summary>
public enum PartMethod
{
    /// <summary>Calendar days, of those of the period.</summary>
    CalendarDays,

    /// <summary>Working days of whoever is paid, of those of the period.</summary>
    WorkingDays,

    /// <summary>Working days of whoever is paid, at a 260th of a year's pay each.</summary>
    Annual260,

    /// <summary>Rostered hours of whoever is paid, of those of the period: for pay by the hour.</summary>
    RosteredHours,
}
