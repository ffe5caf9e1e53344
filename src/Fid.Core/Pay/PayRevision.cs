namespace Fid.Core.Pay;

/// <summary>What becomes of the pay of a group of people by one rule.</summary>
/// <param name="People">Each of them, in the order given.</param>
/// <param name="Raised">How many are paid more afterwards.</param>
/// <param name="AnnualBefore">What they are paid a year before, all together.</param>
/// <param name="AnnualAfter">What they are paid a year afterwards, all together.</param>
public sealed record PayRevision(IReadOnlyList<RevisedPay> People, int Raised, decimal AnnualBefore, decimal AnnualAfter)
{
    /// <summary>The highest percentage a rule can have.</summary>
    public const decimal MostPercent = 100;

    /// <summary>The most an hour that a rule can raise at least.</summary>
    public const decimal MostHourly = 1_000;

    /// <summary>What a year costs more afterwards, before what the employer pays beside.</summary>
    public decimal Budget => AnnualAfter - AnnualBefore;

    /// <summary>
    /// Works it out. Pay is raised in the unit it is stated in, and rounded to the minor unit, half away from zero; never above the maximum of the
    /// band where the rule says so, for which it is rounded down. Nobody is paid less afterwards: who is above their band stays as they are.
    /// </summary>
    /// <returns>Problems by path: "out-of-range" for a rule outside its limits; those of <see cref="PayRate.Of"/> under "/people/" and the
    /// person's place.</returns>
    public static Result<PayRevision> Of(RevisionRule rule, IReadOnlyList<PaidPerson> people)
    {
        var problems = new List<Problem>();
        if (rule.Percent is < 0 or > MostPercent)
            problems.Add(new Problem("/percent", "out-of-range", $"A raise is from 0 to {MostPercent} %."));
        if (rule.AtLeastHourly is < 0 or > MostHourly)
            problems.Add(new Problem("/atLeastHourly", "out-of-range", $"The least raise is from 0 to {MostHourly} an hour."));
        for (var i = 0; i < people.Count; i++)
            problems.AddRange(people[i].Rate().Problems.Select(p => p.Under($"/people/{i}")));
        if (problems.Count > 0)
            return Result<PayRevision>.Failed(problems);
        RevisedPay[] revised = [.. people.Select(p => Revise(rule, p))];
        return new PayRevision(revised, revised.Count(r => r.After > r.Before), revised.Sum(r => r.AnnualBefore), revised.Sum(r => r.AnnualAfter));
    }

    private static RevisedPay Revise(RevisionRule rule, PaidPerson person)
    {
        var (times, hours) = (person.TimesPerYear, person.WeeklyHours * PayRate.WeeksPerYear);
        var (byPercent, byLeast) = (person.Amount * (1 + rule.Percent / 100), person.Amount + rule.AtLeastHourly * hours / times);
        var after = Math.Max(Money.Round(Math.Max(byPercent, byLeast)), person.Amount);
        var limit = byLeast > byPercent ? RevisionLimit.AtLeast : RevisionLimit.None;
        if (rule.UpToBand && person.BandMaximum is { } most)
        {
            var highest = Math.Floor(most * person.WeeklyHours / person.FullTimeHours / times * 100) / 100;
            if (after > highest)
                (after, limit) = (Math.Max(highest, person.Amount), RevisionLimit.BandMaximum);
        }
        return new RevisedPay(person.Id, person.Amount, after, Money.Round(person.Amount * times), Money.Round(after * times), limit);
    }
}

/// <summary>By what rule pay is revised.</summary>
/// <param name="Percent">By how much it rises; 2.5 is 2.5 %.</param>
/// <param name="AtLeastHourly">What an hour is paid more at least, however little the percentage comes to.</param>
/// <param name="UpToBand">Whether nobody is raised above the maximum of their band.</param>
public sealed record RevisionRule(decimal Percent, decimal AtLeastHourly = 0, bool UpToBand = false);

/// <summary>Somebody whose pay may be revised.</summary>
/// <param name="Id">Who it is.</param>
/// <param name="Amount">What they are paid.</param>
/// <param name="Per">What for.</param>
/// <param name="WeeklyHours">Hours they work a week.</param>
/// <param name="FullTimeHours">Hours of somebody full-time a week.</param>
/// <param name="DaysPerWeek">Days they work a week.</param>
/// <param name="BandMaximum">The maximum of their band for a full-time year; null where they have none.</param>
public sealed record PaidPerson(
    string Id,
    decimal Amount,
    PayPeriod Per,
    decimal WeeklyHours,
    decimal FullTimeHours,
    decimal DaysPerWeek,
    decimal? BandMaximum = null
)
{
    internal decimal TimesPerYear => PayRate.TimesPerYear(Per, WeeklyHours, DaysPerWeek);

    internal Result<PayRate> Rate() => PayRate.Of(Amount, Per, WeeklyHours, FullTimeHours, DaysPerWeek, PayPeriod.Year);
}

/// <summary>What becomes of somebody's pay.</summary>
/// <param name="Before">What they are paid, in the unit it is stated in.</param>
/// <param name="After">What they will be.</param>
/// <param name="AnnualBefore">The same for a year at the hours they work.</param>
/// <param name="AnnualAfter">The same for a year at the hours they work.</param>
/// <param name="Limit">What else than the percentage decided.</param>
public sealed record RevisedPay(string Id, decimal Before, decimal After, decimal AnnualBefore, decimal AnnualAfter, RevisionLimit Limit);

/// <summary>What decides how far pay is raised.</summary>
public enum RevisionLimit
{
    /// <summary>The percentage.</summary>
    None,

    /// <summary>The least raise an hour, which is more.</summary>
    AtLeast,

    /// <summary>The maximum of the band, which is less; nothing where pay is above it already.</summary>
    BandMaximum,
}
