using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What somebody is paid beside their base pay, by their own record.</summary>
/// <param name="Id">The row of the record that says it.</param>
/// <param name="Kind">What it is, and so by which component it is paid.</param>
/// <param name="Amount">An allowance a whole period; of a second job a rate, a percentage or an amount an hour, see <see cref="SecondJobKind"/>;
/// of a one-off payment all of it.</param>
/// <param name="From">Its first day; null where it has always held. Nothing for a one-off payment.</param>
/// <param name="Until">Its last day, included; null for no end. Nothing for a one-off payment.</param>
public sealed record PayElement(Guid Id, PayElementKind Kind, decimal Amount, LocalDate? From = null, LocalDate? Until = null)
{
    /// <summary>How the rate of a second job is stated.</summary>
    public SecondJobKind Stated { get; init; }

    /// <summary>The hours a week of a second job.</summary>
    public decimal WeeklyHours { get; init; }

    /// <summary>The day on which a one-off payment is due: the run of its period pays it.</summary>
    public LocalDate? Due { get; init; }

    /// <summary>The code of the job; null where the record names none.</summary>
    public string? Job { get; init; }

    /// <summary>The code of the cost centre that bears it; null where the person's own do.</summary>
    public string? CostCentre { get; init; }

    /// <summary>What it is for, in the words of the record; null for none.</summary>
    public string? Note { get; init; }

    /// <summary>Whether it is paid for a day. A one-off payment is paid for none.</summary>
    public bool HoldsOn(LocalDate day) => Kind != PayElementKind.OneOff && !(day < From) && !(day > Until);

    /// <summary>What an hour of a second job pays on a day, four decimals; null on a day on which it is not held, and for others.</summary>
    /// <param name="day">The day.</param>
    /// <param name="mainRate">What an hour of the main job pays on it.</param>
    public decimal? HourlyOn(LocalDate day, decimal mainRate) =>
        Kind == PayElementKind.SecondJob ? new SecondJobRate(Stated, Amount, From ?? LocalDate.MinIsoValue, Until).On(day, mainRate) : null;

    /// <summary>What a whole period pays by what holds on a day, to the minor unit: 0 where it does not hold, and for a one-off payment.</summary>
    /// <param name="day">The day.</param>
    /// <param name="mainRate">What an hour of the main job pays on it.</param>
    /// <param name="every">The pay period.</param>
    public decimal PerPeriod(LocalDate day, decimal mainRate, PayPeriod every) =>
        !HoldsOn(day) ? 0
        : HourlyOn(day, mainRate) is { } rate ? Money.Round(WeeklyHours * rate * PayRate.WeeksPerYear / PayRate.PeriodsPerYear(every))
        : Amount;
}

/// <summary>What somebody can be paid beside their base pay.</summary>
public enum PayElementKind
{
    /// <summary>An amount each period.</summary>
    Allowance,

    /// <summary>Hours a week in another job, at a rate of their own.</summary>
    SecondJob,

    /// <summary>An amount that is paid once.</summary>
    OneOff,
}
