using NodaTime;

namespace Fid.Core.People;

/// <summary>Since when somebody belongs to the firm, over all stints.</summary>
/// <param name="OriginalHire">The first day of the first stint.</param>
/// <param name="LastHire">The first day of the last one.</param>
/// <param name="AdjustedService">
/// The last hire less the days of earlier stints, as far as no break between two stints is longer than is bridged. Days on which
/// two stints overlap count once, and those from the last hire on not at all.
/// </param>
public sealed record ServiceDates(LocalDate OriginalHire, LocalDate LastHire, LocalDate AdjustedService)
{
    /// <summary>Works the dates out.</summary>
    /// <param name="stints">The stints in any order, first and last day included; the end is null where none is set.</param>
    /// <param name="bridgeDays">The longest break, in days between the last day of one stint and the first of the next, that does not interrupt
    /// service.</param>
    /// <returns>
    /// Problems, with paths into the stints: "missing-employment" where there is none; "not-in-order" where one ends before it starts;
    /// "missing-end" where one that is not the last has no end.
    /// </returns>
    public static Result<ServiceDates> Of(IReadOnlyList<(LocalDate Start, LocalDate? End)> stints, int bridgeDays)
    {
        if (stints.Count == 0)
            return Result<ServiceDates>.Failed(new Problem("/employments", "missing-employment", "Give at least one employment."));
        var problems = new List<Problem>();
        var last = stints.Max(s => s.Start);
        for (var i = 0; i < stints.Count; i++)
        {
            var (start, end) = stints[i];
            if (end < start)
                problems.Add(new Problem($"/employments/{i}/end", "not-in-order", "The end is not before the start."));
            if (end is null && start < last)
                problems.Add(new Problem($"/employments/{i}/end", "missing-end", "Somebody was hired again later, so this needs an end."));
        }
        if (problems.Count > 0)
            return Result<ServiceDates>.Failed(problems);

        var (days, from) = (0, last);
        foreach (var (start, end) in stints.Where(s => s.Start < last).OrderByDescending(s => s.End).ThenByDescending(s => s.Start))
        {
            var until = LocalDate.Min(end!.Value, from.PlusDays(-1));
            if (Period.DaysBetween(until, from) - 1 > bridgeDays)
                break;
            if (start >= from)
                continue; // wholly within a stint already counted
            days += Period.DaysBetween(start, until) + 1;
            from = start;
        }
        return new ServiceDates(stints.Min(s => s.Start), last, last.PlusDays(-days));
    }
}
