using BenchmarkDotNet.Attributes;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using NodaTime;

namespace Fid.Bench;

/// <summary>A morning's reminders of a large firm: 20,000 tasks of 500 people, due over three months, of which half were reminded before.</summary>
public class ChaseBenchmarks
{
    private const int People = 500,
        Tasks = 20_000;

    private static readonly LocalDate Today = new(2027, 3, 1);
    private ChaseQuestion _question = null!;

    [GlobalSetup]
    public void Prepare()
    {
        var random = new Random(20270301);
        var calendars = Enumerable
            .Range(0, 5)
            .ToDictionary(
                i => $"c{i}",
                i => new WorkCalendar(i == 0 ? RestMask.None : RestMask.Weekend, Enumerable.Range(0, 40).Select(_ => Today.PlusDays(random.Next(-200, 200))))
            );
        var people = Enumerable
            .Range(0, People)
            .Select(i => new ChasedPerson(
                $"p{i}",
                $"c{i % calendars.Count}",
                i == 0 ? null : $"p{i / 8}",
                i % 10 == 3 ? [new Absence(Today.PlusDays(-3), Today.PlusDays(4), $"p{random.Next(People)}")] : []
            ))
            .ToList();
        var tasks = Enumerable
            .Range(0, Tasks)
            .Select(i => new ChasedTask($"t{i}", $"p{random.Next(People)}", Today.PlusDays(random.Next(-30, 60)), random.Next(5) > 0, random.Next(50) == 0))
            .ToList();
        var policy = new ChasePolicy([5, 1], true, 2, 3, 3);
        var asked = new ChaseQuestion(Today.PlusDays(-1), calendars, policy, people, tasks, []);
        var sent = Chase.Of(asked).Answer!.Messages.SelectMany(m => m.Reminders).Select(r => new SentReminder(r.Task, r.Kind, r.Day));
        _question = asked with { Today = Today, Sent = [.. sent.Where((_, i) => i % 2 == 0)] };
    }

    [Benchmark]
    public int Reminders() => Chase.Of(_question).Answer!.Messages.Count;
}
