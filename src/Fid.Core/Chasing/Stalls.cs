using Fid.Core.Texts;

namespace Fid.Core.Chasing;

/// <summary>Where work stalls: how long tasks took that were done in a time.</summary>
/// <param name="Tasks">By key: the slowest first, those of which nothing was done last, then by name.</param>
/// <param name="Owners">The same by owner.</param>
public sealed record Stalls(IReadOnlyList<TaskStall> Tasks, IReadOnlyList<OwnerStall> Owners)
{
    /// <summary>Works it out. Every key and every owner of the question has its row.</summary>
    /// <returns>Problems by the path in the question: "unknown-calendar"; "not-in-order" for a time that ends before it begins.</returns>
    public static Result<Stalls> Of(StallsQuestion question)
    {
        var problems = new List<Problem>();
        if (question.To < question.From)
            problems.Add(new Problem("/to", "not-in-order", "The time ends before it begins. Swap the two days."));
        for (var i = 0; i < question.Tasks.Count; i++)
            if (!question.Calendars.ContainsKey(question.Tasks[i].Calendar))
                problems.Add(new Problem($"/tasks/{i}/calendar", "unknown-calendar", $"There is no calendar {question.Tasks[i].Calendar}."));
        if (problems.Count > 0)
            return Result<Stalls>.Failed(problems);
        return new Stalls(
            [
                .. Rows(question, t => t.Key)
                    .Select(row =>
                    {
                        // Of those done on one day the last in the question.
                        int? work = row.Counted.Count == 0 ? null : row.Counted.OrderBy(t => t.Done).Last().Work;
                        int? takes = row.Counted.Count < question.Least ? null : row.Spread?.WholeDays(80);
                        return new TaskStall(row.Name, row.Figures, work, takes == work ? null : takes);
                    }),
            ],
            [.. Rows(question, t => t.Owner).Select(row => new OwnerStall(row.Name, row.Figures))]
        );
    }

    private static IEnumerable<Row> Rows(StallsQuestion question, Func<WorkedTask, string> name) =>
        question
            .Tasks.GroupBy(name, StringComparer.Ordinal)
            .Select(group => Row.Of(group.Key, [.. group], question))
            .OrderByDescending(row => row.Figures.P90 ?? -1)
            .ThenBy(row => row.Name, CodePointOrder.Instance);

    // What is counted of one key or owner, and what it comes to.
    private sealed record Row(string Name, IReadOnlyList<WorkedTask> Counted, DaySpread? Spread, StallFigures Figures)
    {
        public static Row Of(string name, IReadOnlyList<WorkedTask> all, StallsQuestion question)
        {
            var counted = all.Where(t => question.From <= t.Done && t.Done <= question.To).ToList();
            var due = counted.FindAll(t => t.Due is not null);
            // What was done before it was possible, or on a day off, took a day all the same.
            var spread =
                counted.Count == 0 ? null : new DaySpread(counted.Select(t => Math.Max(question.Calendars[t.Calendar].Count(t.Possible, t.Done!.Value), 1)));
            return new Row(
                name,
                counted,
                spread,
                new StallFigures(
                    counted.Count,
                    spread?.Percentile(50),
                    spread?.Percentile(90),
                    Share(due.Count(t => t.Done > t.Due), due.Count),
                    Share(counted.Count(t => t.HeldUp), counted.Count),
                    all.Count(t => t.Possible <= question.To && !(t.Done <= question.To)),
                    spread is null ? null : new DayBox(spread.Percentile(10), spread.Percentile(25), spread.Percentile(75))
                )
            );
        }

        private static decimal? Share(int part, int of) => of == 0 ? null : decimal.Round((decimal)part / of, 3, MidpointRounding.AwayFromZero);
    }
}

/// <summary>What the tasks of one key came to.</summary>
/// <param name="Work">The working days that the last one done was said to take; null where none was.</param>
/// <param name="SuggestedWork">What four of five of them did not exceed, where enough were done and it is another; null otherwise.</param>
public sealed record TaskStall(string Key, StallFigures Figures, int? Work, int? SuggestedWork);

/// <summary>What the tasks of one owner came to.</summary>
public sealed record OwnerStall(string Owner, StallFigures Figures);

/// <summary>Figures of tasks that were done in a time; null where there is nothing to work them out from.</summary>
/// <param name="Count">How many were done.</param>
/// <param name="Median">The working days that half of them did not exceed, to two decimals.</param>
/// <param name="P90">Those that nine of ten did not exceed.</param>
/// <param name="LateShare">Of those with a due date, the share done after it, to three decimals.</param>
/// <param name="HeldUpShare">The share of those that held up their hire.</param>
/// <param name="Open">How many could be worked on by the last day and were not done by then.</param>
/// <param name="Box">What the spread is drawn by, besides the median and those that nine of ten did not exceed.</param>
public sealed record StallFigures(int Count, decimal? Median, decimal? P90, decimal? LateShare, decimal? HeldUpShare, int Open, DayBox? Box = null);

/// <summary>Where a spread begins, and where its middle half lies.</summary>
/// <param name="P10">The working days that one of ten did not exceed, to two decimals.</param>
/// <param name="P25">Those that a quarter did not exceed.</param>
/// <param name="P75">Those that three quarters did not.</param>
public sealed record DayBox(decimal P10, decimal P25, decimal P75);
