using BenchmarkDotNet.Columns;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Loggers;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using Fid.Bench;
using Fid.Core.Tests.People;

// usage: Fid.Bench core | questions | people | arrivals TODAY | lists TODAY | rights TODAY | history TODAY | hires TODAY | replan TODAY | pay TODAY | import.
// Prints rows of a Markdown table; ops/bench puts them into docs/performance.md.
switch (args)
{
    case ["core"]:
        var config = ManualConfig
            .CreateEmpty()
            .AddJob(Job.Default.WithWarmupCount(10).WithIterationCount(15).WithToolchain(InProcessEmitToolchain.Instance))
            .AddColumnProvider(DefaultColumnProviders.Instance)
            .AddLogger(NullLogger.Instance);
        var goals = new Dictionary<string, (string What, string Goal)>
        {
            ["Plan"] = ("1,000 hires × 40 tasks planned from scratch", "under 150 ms"),
            ["PlanWithSoonestStart"] = ("the same with the soonest start of each", "under 600 ms"),
            ["CalendarAdds"] = ("1,000,000 adds to a calendar", "–"),
            ["Check"] = ("a configuration of 400 fields looked through", "under 50 ms"),
            ["Evaluate"] = ("a record of 120 fields evaluated", "under 2 ms"),
            ["FirstPayAndCost"] = ("The first pay down to net and the cost of 5,000 people", "under 2000 ms on one core"),
            ["Reminders"] = ("what goes out of 20,000 tasks of 500 people", "under 200 ms"),
        };
        Type[] measured = [typeof(CoreBenchmarks), typeof(FieldBenchmarks), typeof(ChaseBenchmarks), typeof(PayBenchmarks)];
        foreach (var report in measured.SelectMany(benchmarks => BenchmarkRunner.Run(benchmarks, config).Reports))
        {
            var (what, goal) = goals[report.BenchmarkCase.Descriptor.WorkloadMethod.Name];
            Console.WriteLine(TableRow.Of($"{what}", $"{report.ResultStatistics!.Median / 1e6:0.00} ms", $"{goal}"));
        }
        return 0;
    case ["questions"]:
        // A thousand questions of 40 tasks for ./fid compute, as JSON lines.
        for (var i = 0; i < 1000; i++)
            Console.WriteLine(QuestionJson.Write(CoreBenchmarks.Question(i)));
        return 0;
    case ["people"]:
        MatchTrial.Run();
        var (precision, recall, each) = MatchTrial.Run();
        Console.WriteLine(
            TableRow.Of(
                $"Who of 5,000 people somebody is, 5,000 times: precision {precision:0.000}, recall {recall:0.000}",
                $"{each:0.00} ms each; {MatchTrial.BarestMilliseconds():0.00} ms by name and an e-mail nobody has",
                $"0.97, 0.95; under 20 ms"
            )
        );
        return 0;
    case ["arrivals", var today]:
        Console.WriteLine(await ArrivalsMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!, today));
        return 0;
    case ["lists", var today]:
        foreach (
            var row in await ListsMeasure.RunAsync(
                Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!,
                Environment.GetEnvironmentVariable("ConnectionStrings__Larger")!,
                today
            )
        )
            Console.WriteLine(row);
        return 0;
    case ["rights", var today]:
        foreach (var row in await RightsMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Larger")!, today))
            Console.WriteLine(row);
        return 0;
    case ["history", var today]:
        foreach (var row in await HistoryMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!, today))
            Console.WriteLine(row);
        return 0;
    case ["hires", var today]:
        Console.WriteLine(await HiresMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!, today));
        return 0;
    case ["replan", var today]:
        foreach (var row in await ReplanMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!, today))
            Console.WriteLine(row);
        return 0;
    case ["pay", var today]:
        foreach (var row in await PayMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!, today))
            Console.WriteLine(row);
        return 0;
    case ["import"]:
        foreach (var row in await ImportMeasure.RunAsync(Environment.GetEnvironmentVariable("ConnectionStrings__Fid")!))
            Console.WriteLine(row);
        return 0;
    default:
        return 2;
}
