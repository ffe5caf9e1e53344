using Fid.Core.Calendars;
using Fid.Core.Clock;
using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What somebody new is paid first, and when.</summary>
/// <param name="Runs">From the period in which they start to the one whose run pays them first.</param>
/// <param name="Part">The days of the first period that are paid; paid minutes where it is counted by rostered hours.</param>
/// <param name="Whole">What it is a part of: the days of the period, 260 working days of a year, or the period's paid minutes.</param>
/// <param name="Lines">What is paid of each period, from the first one on.</param>
/// <param name="Total">The sum of the lines.</param>
public sealed record FirstPay(IReadOnlyList<PayRun> Runs, int Part, int Whole, IReadOnlyList<FirstPayLine> Lines, decimal Total)
{
    /// <summary>The working days of a year by which <see cref="PartMethod.Annual260"/> counts.</summary>
    public const int WorkingDaysOfYear = 260;

    /// <summary>The period in which they start.</summary>
    public PayRun FirstPeriod => Runs[0];

    /// <summary>The run that pays them first: that of the first period, or a later one where its cut-off was missed.</summary>
    public PayRun PaidWith => Runs[^1];

    /// <summary>The periods that a run pays: with the first all until then, with a later one its own, and none with one before.</summary>
    public IReadOnlyList<PayRun> PaidBy(PayRun run) =>
        run.Start < PaidWith.Start ? []
        : run.Start == PaidWith.Start ? Runs
        : [run];

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
        if (IsOutside(amount))
            return Failed("/amountPerPeriod", "Pay is 0 or more, and at most a million million.");
        for (var i = 0; i < question.Later.Count; i++)
            if (IsOutside(question.Later[i].Amount))
                return Failed($"/later/{i}/amount", "Pay is 0 or more, and at most a million million.");
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
            return Pay(question, [.. runs.Take(with + 1)], wording ?? PayWording.English);
        }
    }

    private static Result<FirstPay> Pay(FirstPayQuestion question, PayRun[] runs, PayWording wording)
    {
        var (lines, first) = (new List<FirstPayLine>(), new Share(0, 0));
        foreach (var run in runs)
        {
            var period = PeriodPay.Of(question, run, wording);
            if (period.Answer is not { } paid)
                return Result<FirstPay>.Failed(period.Problems);
            first = lines.Count == 0 ? paid.Share : first;
            lines.Add(new FirstPayLine(run.Start, paid.Amount, IsArrears: run != runs[^1], paid.Working));
        }
        return new FirstPay(runs, first.Part, first.Whole, lines, lines.Sum(l => l.Amount));
    }

    private static bool IsOutside(decimal amount) => amount is < 0 or > Money.Most;

    private static Problem AtStart(Problem problem) => problem.Path is "/from" or "/to" ? problem with { Path = "/start" } : problem;

    private static Result<FirstPay> Failed(string path, string message) => Result<FirstPay>.Failed(new Problem(path, "out-of-range", message));
}

/// <summary>Whose pay is asked for.</summary>
/// <param name="Terms">By what rule they are paid.</param>
/// <param name="Start">Their first day.</param>
/// <param name="ApprovedOn">When their record is approved, and so can be paid.</param>
/// <param name="WorkCalendar">Their own working days.</param>
/// <param name="AmountPerPeriod">What a whole period pays.</param>
/// <param name="Method">By what the part of a period is counted.</param>
/// <param name="Roster">When they work; needed where it is counted by rostered hours.</param>
/// <param name="End">Their last day, included; null while there is none.</param>
public sealed record FirstPayQuestion(
    PayGroupTerms Terms,
    LocalDate Start,
    LocalDate ApprovedOn,
    WorkCalendar WorkCalendar,
    decimal AmountPerPeriod,
    PartMethod Method,
    RosterTerms? Roster = null,
    LocalDate? End = null
)
{
    /// <summary>What a whole period pays from days after the start on, in the order of days; nothing where the amount stays.</summary>
    public IReadOnlyList<AmountFrom> Later { get; init; } = [];
}

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
