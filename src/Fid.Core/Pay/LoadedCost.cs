namespace Fid.Core.Pay;

/// <summary>What an hour that somebody works costs the firm.</summary>
/// <param name="AnnualCost">All a year costs, to the minor unit.</param>
/// <param name="ProductiveHours">The hours of a year that are worked: those agreed, less leave, holidays and training; two decimals.</param>
/// <param name="LoadedHourly">The cost of each of them, to the minor unit.</param>
public sealed record LoadedCost(decimal AnnualCost, decimal ProductiveHours, decimal LoadedHourly)
{
    private const decimal MostDays = 366,
        MostHours = 8784,
        HoursInDay = 24;

    /// <summary>The most costs that are added up.</summary>
    public const int Most = 1000;

    /// <summary>Works it out. A year has 52 weeks.</summary>
    /// <param name="annualCosts">What a year costs, each from 0 to a million million: pay, the employer's contributions, whatever else.</param>
    /// <param name="weeklyHours">Hours agreed a week, above 0 and at most 168.</param>
    /// <param name="hoursPerDay">Hours of a day off, above 0 and at most 24.</param>
    /// <param name="leaveDays">Days of leave a year, from 0 to 366.</param>
    /// <param name="holidays">Holidays a year that would have been worked, from 0 to 366.</param>
    /// <param name="trainingHours">Hours a year spent learning, from 0 to 8784.</param>
    /// <returns>Problems by path: "out-of-range" for a figure outside its limits; "nothing-left", without a path, where leave, holidays and training
    /// leave no hour to work.</returns>
    public static Result<LoadedCost> Of(
        IReadOnlyList<decimal> annualCosts,
        decimal weeklyHours,
        decimal hoursPerDay,
        decimal leaveDays,
        decimal holidays,
        decimal trainingHours
    )
    {
        var problems = new List<Problem>();
        if (annualCosts.Count > Most)
            problems.Add(new Problem("/annualCosts", "too-many", $"Give at most {Most} costs."));
        for (var i = 0; i < annualCosts.Count; i++)
            if (annualCosts[i] is < 0 or > Money.Most)
                problems.Add(new Problem($"/annualCosts/{i}", "out-of-range", "A cost is 0 or more, and at most a million million."));
        Require(weeklyHours is > 0 and <= PayRate.HoursInWeek, "/weeklyHours", "Hours a week are above 0 and at most 168.");
        Require(hoursPerDay is > 0 and <= HoursInDay, "/hoursPerDay", "Hours a day are above 0 and at most 24.");
        Require(leaveDays is >= 0 and <= MostDays, "/leaveDays", "Days of leave are from 0 to 366.");
        Require(holidays is >= 0 and <= MostDays, "/holidays", "Holidays are from 0 to 366.");
        Require(trainingHours is >= 0 and <= MostHours, "/trainingHours", "Hours of training are from 0 to 8784.");
        if (problems.Count > 0)
            return Result<LoadedCost>.Failed(problems);

        var productive = weeklyHours * PayRate.WeeksPerYear - (leaveDays + holidays) * hoursPerDay - trainingHours;
        if (productive <= 0)
            return Result<LoadedCost>.Failed(new Problem("", "nothing-left", "Leave, holidays and training leave no hour to work."));
        var cost = annualCosts.Sum();
        return new LoadedCost(Money.Round(cost), Money.Decimals(productive, 2), Money.Round(cost / productive));

        void Require(bool holds, string path, string message)
        {
            if (!holds)
                problems.Add(new Problem(path, "out-of-range", message));
        }
    }
}
