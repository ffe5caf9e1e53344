using BenchmarkDotNet.Attributes;
using Fid.Core.Calendars;
using Fid.Core.Planning;
using NodaTime;

namespace Fid.Bench;

/// <summary>The rules alone, on one core.</summary>
public class CoreBenchmarks
{
    private const int Hires = 1000;
    private const int TasksPerHire = 40;
    private const int Adds = 1_000_000;

    private readonly PlanQuestion[] _questions = [.. Enumerable.Range(0, Hires).Select(Question)];
    private readonly WorkCalendar _calendar = new(RestMask.Weekend, [.. Enumerable.Range(0, 40).Select(i => new LocalDate(2027, 1, 1).PlusDays(37 * i))]);
    private readonly LocalDate[] _dates = [.. Enumerable.Range(0, 1000).Select(i => new LocalDate(2027, 1, 1).PlusDays(i))];

    /// <summary>40,000 tasks from scratch, without looking for the soonest start.</summary>
    [Benchmark]
    public int Plan() => _questions.Count(q => Planner.Plan(q, SoonestSearch.Never).Answer!.Feasible);

    /// <summary>The same with the soonest start of every hire.</summary>
    [Benchmark]
    public int PlanWithSoonestStart() => _questions.Count(q => Planner.Plan(q).Answer!.SoonestStart is not null);

    /// <summary>A million questions to a calendar with 40 holidays.</summary>
    [Benchmark]
    public int CalendarAdds()
    {
        var checksum = 0;
        for (var i = 0; i < Adds; i++)
            checksum ^= _calendar.Add(_dates[i % _dates.Length], i % 400 - 200)!.Value.Day;
        return checksum;
    }

    /// <summary>A checklist of the usual shape: a stage to prepare, one to arrive that waits for it, chains of three in each.</summary>
    public static PlanQuestion Question(int hire)
    {
        var today = new LocalDate(2027, 3, 1);
        var tasks = Enumerable
            .Range(0, TasksPerHire)
            .Select(i => new PlanTask(
                $"t{i}",
                i < 28 ? "prepare" : "arrive",
                i % 3 == 0 ? "dock" : "office",
                1 + (i + hire) % 4,
                null,
                i % 2 == 0 ? new PlanOffset("start", i < 28 ? -1 - i % 5 : i - 20, i % 4 == 0 ? OffsetUnit.Working : OffsetUnit.Days) : null,
                i % 3 == 0 || i == 28 ? [] : [new PlanLink($"t{i - 1}", i % 5 == 0 ? 1 : 0)],
                Required: i % 7 != 0,
                DayOne: i < 20,
                Done: i < hire % 12 ? today.PlusDays(-1 - i) : null,
                Skipped: false
            ))
            .ToArray();
        return new PlanQuestion(
            today,
            new Dictionary<string, LocalDate> { ["start"] = today.PlusDays(hire % 45) },
            new Dictionary<string, WorkCalendar>
            {
                ["office"] = new(RestMask.Weekend, [new LocalDate(2027, 3, 17), new LocalDate(2027, 5, 3)]),
                ["dock"] = WorkCalendar.EveryDay,
            },
            [new PlanStage("prepare", null, []), new PlanStage("arrive", new PlanOffset("start", 0, OffsetUnit.Days), ["prepare"])],
            tasks
        );
    }
}
