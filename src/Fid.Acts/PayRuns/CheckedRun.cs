using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Pay;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>A run of a pay group that is looked at before it is paid.</summary>
/// <param name="Last">The run before it; null for the first of all.</param>
public sealed record CheckedRun(EntryContent Group, PayRun Run, PayRun? Last)
{
    // Long enough to come to the next cut-off of those paid by the year.
    private const int DaysAhead = 800;

    /// <summary>The run whose cut-off comes next, that of today included; null where the group has no periods by then.</summary>
    public static CheckedRun? Next(PayReading pay, EntryContent group, LocalDate today)
    {
        var runs = pay.Terms(group).Periods(today.PlusDays(-DaysAhead), today.PlusDays(DaysAhead)).Answer;
        return runs?.FirstOrDefault(r => r.CutOff >= today) is { } next ? On(pay, group, next.Start) : null;
    }

    /// <summary>The run of the period that a day lies in; null where the group has none then.</summary>
    public static CheckedRun? On(PayReading pay, EntryContent group, LocalDate day)
    {
        var terms = pay.Terms(group);
        return terms.Periods(day, day).Answer is [var run, ..]
            ? new CheckedRun(group, run, terms.Periods(run.Start.PlusDays(-1), run.Start.PlusDays(-1)).Answer is [var last, ..] ? last : null)
            : null;
    }
}
