namespace Fid.Mutants;

/// <summary>Which test classes come by which of the planted mistakes: the others cannot catch them, and need not be run.</summary>
internal sealed class Reach
{
    private readonly Dictionary<int, List<TestClass>> _classes = [];

    /// <summary>The classes that come by a mistake, the quickest first.</summary>
    public IReadOnlyList<string> Of(int mutant) => [.. _classes.GetValueOrDefault(mutant, []).OrderBy(c => c.Took).Select(c => c.Name)];

    /// <summary>Runs each class once with nothing switched on.</summary>
    /// <exception cref="InvalidOperationException">A class fails though nothing is planted.</exception>
    public static async Task<Reach> MeasureAsync(TestRun run, string folder)
    {
        var reach = new Reach();
        Directory.CreateDirectory(folder);
        var classes = await run.ClassesAsync();
        await Parallel.ForEachAsync(classes, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, async (name, _) =>
        {
            var (file, began) = (Path.Combine(folder, name), TimeProvider.System.GetTimestamp());
            if (await run.FailureAsync(0, [name], file) is { } said)
                throw new InvalidOperationException($"{name} fails though nothing is planted: {said}");
            var ran = new TestClass(name, TimeProvider.System.GetElapsedTime(began));
            var reached = File.Exists(file) ? await File.ReadAllLinesAsync(file, CancellationToken.None) : [];
            lock (reach._classes)
                foreach (var mutant in reached.Select(int.Parse))
                    if (!reach._classes.TryAdd(mutant, [ran]))
                        reach._classes[mutant].Add(ran);
        });
        return reach;
    }

    private sealed record TestClass(string Name, TimeSpan Took);
}
