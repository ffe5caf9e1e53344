using NodaTime;

namespace Fid.Core.Planning;

/// <summary>Why a task has to be finished when it has: what needs it, what needs that, and so on to a day that is given.</summary>
public static class PlanChain
{
    /// <summary>
    /// The chain from a task on, the task first. Each link names what sets its latest finish; the last is bounded by its own due date or by the
    /// first day. Where two set the same day, its own due date is named before the first day, that before another task. Empty for a task that is
    /// done, does not apply, or that nothing bounds.
    /// </summary>
    /// <param name="question">The question that the plan answers.</param>
    /// <param name="task">The id of a task of it.</param>
    public static IReadOnlyList<ChainLink> Of(PlanQuestion question, Plan plan, string task)
    {
        var places = question.Tasks.Select((t, i) => (t.Id, i)).ToDictionary(t => t.Id, t => t.i, StringComparer.Ordinal);
        var links = new List<ChainLink>();
        for (int? at = places[task]; at is { } i && plan.Tasks[i] is { EarliestFinish: { } earliest, LatestFinish: { } latest }; )
        {
            var (by, next, day) = Bounds(question, plan, i).MinBy(b => b.Day);
            links.Add(new ChainLink(question.Tasks[i].Id, earliest, latest, by, next is { } n ? question.Tasks[n].Id : null, day));
            at = next;
        }
        return links;
    }

    // All that bounds a task which has a latest finish: the last day that each allows, before rest days are looked at. MinBy takes the first of equals.
    private static IEnumerable<(ChainBound By, int? Next, LocalDate Day)> Bounds(PlanQuestion question, Plan plan, int i)
    {
        var task = question.Tasks[i];
        if (plan.Tasks[i].Due is { } due)
            yield return (ChainBound.Due, null, due);
        if (task.DayOne)
            yield return (ChainBound.DayOne, null, question.Anchors[PlanQuestion.Start].PlusDays(-1));
        // What is done on the day itself needs no day of its own.
        var before = task.Work == 0 ? 0 : 1;
        // Nothing waits for a gate any more that a person let pass.
        var gated = task.Required && question.Stages.First(s => s.Id == task.Stage).Passed is null;
        for (var n = 0; n < question.Tasks.Count; n++)
        {
            if (plan.Tasks[n].LatestStart is not { } start)
                continue;
            var later = question.Tasks[n];
            foreach (var link in later.After.Where(a => a.Id == task.Id))
                if (question.Calendars[later.Calendar].Add(start, -link.Lag) is { } free)
                    yield return (ChainBound.Task, n, free.PlusDays(-before));
            if (gated && question.Stages.Any(s => s.Id == later.Stage && s.WaitsFor.Contains(task.Stage)))
                yield return (ChainBound.Gate, n, start.PlusDays(-before));
        }
    }
}

/// <summary>A task in a chain.</summary>
/// <param name="EarliestFinish">When it can be finished.</param>
/// <param name="LatestFinish">When it has to be.</param>
/// <param name="By">What sets that.</param>
/// <param name="Next">The id of the task that sets it; null where its own due date or the first day does.</param>
/// <param name="Day">The last day that this allows, included, before the rest days of whoever does the task are looked at.</param>
public sealed record ChainLink(string Task, LocalDate EarliestFinish, LocalDate LatestFinish, ChainBound By, string? Next, LocalDate Day);

/// <summary>What sets when a task has to be finished.</summary>
public enum ChainBound
{
    /// <summary>Its own due date.</summary>
    Due,

    /// <summary>That it belongs before the first day.</summary>
    DayOne,

    /// <summary>A task that comes after it.</summary>
    Task,

    /// <summary>A task of a stage that waits until the stage of this one has passed.</summary>
    Gate,
}
