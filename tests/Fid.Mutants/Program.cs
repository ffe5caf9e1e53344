using System.Globalization;
using Fid.Mutants;

// usage: Fid.Mutants REPOSITORY [Fid.Core|Fid.Acts][/FOLDER] [--sample N --seed TEXT]
// Plants mistakes and says which of them no test catches. Survivors that are no fault stand in tests/Fid.Mutants/accepted.txt, with why.
var repository = args[0];
var target = args.Length > 1 && !args[1].StartsWith("--", StringComparison.Ordinal) ? args[1] : "Fid.Core";
var (project, folder) = target.Split('/', 2) is [var first, var rest] ? (first, rest.TrimEnd('/')) : (target, "");
var (tests, goal) = project switch
{
    "Fid.Core" => ("Fid.Core.Tests", 90),
    "Fid.Acts" => ("Fid.Server.Tests", 80),
    _ => throw new ArgumentException($"Mutants are planted in Fid.Core or Fid.Acts, not in {project}."),
};
var accepted = File.ReadLines(Path.Combine(repository, "tests/Fid.Mutants/accepted.txt"))
    .Where(l => l.Length > 0 && l[0] != '#')
    .Select(l => l.Split(" — ")[0])
    .ToHashSet();

var copy = await PlantedCopy.MakeAsync(repository, project, folder, tests);
var tried = copy.Mutants.Where(m => !accepted.Contains(m.Name)).ToList();
if (Option("--sample") is { } sample)
{
    var chance = new Random((Option("--seed") ?? "").Aggregate(17, (hash, c) => unchecked(hash * 31 + c)));
    tried = [.. tried.OrderBy(_ => chance.Next()).Take(int.Parse(sample, CultureInfo.InvariantCulture))];
}
var run = new TestRun(Path.Combine(copy.Root, "tests", tests, "bin", "Debug", "net10.0", tests));
if (!await run.PassAsync(0, []))
    throw new InvalidOperationException("The tests fail though nothing is planted.");

var (survivors, done) = (new List<Mutant>(), 0);
await Parallel.ForEachAsync(tried, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, async (mutant, _) =>
{
    var inside = Path.GetRelativePath(Path.Combine("src", project), mutant.File).Split('/');
    var isCaught = await run.CatchesAsync(mutant.Number, inside.Length > 1 ? inside[0] : "", tests);
    lock (survivors)
    {
        if (!isCaught)
        {
            survivors.Add(mutant);
            Console.WriteLine($"survives: {mutant.Number}, {mutant.File}:{mutant.Line}: {mutant.Was} → {mutant.Is}");
        }
        if (++done % 50 == 0)
            Console.WriteLine($"  {done} of {tried.Count}");
    }
});
var caught = tried.Count == 0 ? 100 : 100.0 * (tried.Count - survivors.Count) / tried.Count;
Console.WriteLine(
    string.Create(
        CultureInfo.InvariantCulture,
        $"{target}: {tried.Count} mistakes planted, {tried.Count - survivors.Count} caught, {caught:0.0} %; {goal} % are wanted."
    )
);
return caught >= goal ? 0 : 1;

string? Option(string name) => Array.IndexOf(args, name) is var at and >= 0 && at + 1 < args.Length ? args[at + 1] : null;
