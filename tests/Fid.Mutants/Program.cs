using System.Collections.Concurrent;
using System.Globalization;
using Fid.Mutants;

// usage: Fid.Mutants REPOSITORY [Fid.Core|Fid.Acts][/FOLDER] [--sample N --seed TEXT]
// Plants mistakes and says which of them no test catches. Survivors that are no fault stand in tests/Fid.Mutants/accepted.txt, with why.
var repository = args[0];
var target = args.Length > 1 && !args[1].StartsWith("--", StringComparison.Ordinal) ? args[1] : "Fid.Core";
var (project, folder) = target.Split('/', 2) is [var first, var rest] ? (first, rest.TrimEnd('/')) : (target, "");
var (tests, goal, longest) = project switch
{
    "Fid.Core" => ("Fid.Core.Tests", 90, TimeSpan.FromSeconds(90)),
    "Fid.Acts" => ("Fid.Server.Tests", 80, TimeSpan.FromMinutes(15)),
    _ => throw new ArgumentException($"Mutants are planted in Fid.Core or Fid.Acts, not in {project}."),
};
var accepted = File.ReadLines(Path.Combine(repository, "tests/Fid.Mutants/accepted.txt"))
    .Where(l => l.Length > 0 && l[0] != '#')
    .Select(l => l.Split(" — ")[0])
    .ToHashSet();

var copy = await PlantedCopy.MakeAsync(repository, project, folder, tests);
var tried = copy.Mutants.Where(m => !accepted.Contains(m.Name)).ToList();
var sample = Option("--sample");
if (sample is not null)
{
    var chance = new Random((Option("--seed") ?? "").Aggregate(17, (hash, c) => unchecked(hash * 31 + c)));
    tried = [.. tried.OrderBy(_ => chance.Next()).Take(int.Parse(sample, CultureInfo.InvariantCulture))];
}

// The first run, in which nothing is switched on, makes the database that all the others copy: none is made by a mistake.
Environment.SetEnvironmentVariable("FID_TEST_TEMPLATE", "fid_template_mutants");
var run = new TestRun(Path.Combine(copy.Root, "tests", tests, "bin", "Debug", "net10.0", tests), longest);
var reach = await Reach.MeasureAsync(run, Path.Combine(copy.Root, "reached"));

var (survivors, done, served) = (new List<Mutant>(), 0, new ConcurrentBag<ServedTests>());
await Parallel.ForEachAsync(tried, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, async (mutant, _) =>
{
    var classes = reach.Of(mutant.Number);
    var isCaught = classes.Count > 0 && await CatchAsync(mutant.Number, classes);
    lock (survivors)
    {
        if (!isCaught)
        {
            survivors.Add(mutant);
            Console.WriteLine($"survives{(classes.Count == 0 ? ", reached by no test" : "")}: {mutant.File}:{mutant.Line}: {mutant.Was} → {mutant.Is}");
        }
        if (++done % 50 == 0)
            Console.WriteLine($"  {done} of {tried.Count}");
    }
});
foreach (var process in served)
    process.Dispose();
var caught = tried.Count == 0 ? 100 : 100.0 * (tried.Count - survivors.Count) / tried.Count;

// A sample tells of the whole within its chance: beyond four standard errors it is no chance.
var wanted = sample is null || tried.Count == 0 ? goal : goal - 400 * Math.Sqrt(goal * (100 - goal) / 10_000.0 / tried.Count);
Console.WriteLine(
    string.Create(
        CultureInfo.InvariantCulture,
        $"{target}: {tried.Count} mistakes planted, {tried.Count - survivors.Count} caught, {caught:0.0} %; {goal} % are wanted, {wanted:0.0} % of this many."
    )
);
return caught >= wanted ? 0 : 1;

// The quickest class that comes by it is asked first, then the others.
async Task<bool> CatchAsync(int mutant, IReadOnlyList<string> classes)
{
    var process = served.TryTake(out var free) ? free : new ServedTests(run.Program, run.Longest);
    var isCaught = !await process.PassAsync(mutant, classes.Take(1)) || (classes.Count > 1 && !await process.PassAsync(mutant, classes.Skip(1)));
    served.Add(process);
    return isCaught || !await run.PassAsync(mutant, classes);
}

string? Option(string name) => Array.IndexOf(args, name) is var at and >= 0 && at + 1 < args.Length ? args[at + 1] : null;
