using System.Diagnostics;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;

namespace Fid.Mutants;

/// <summary>A copy of the repository's code with mistakes planted into a folder of it, built once.</summary>
internal sealed class PlantedCopy
{
    private const string Switch = """
        public static class Mutants
        {
            private static readonly bool[]? Reached = Remember(System.Environment.GetEnvironmentVariable("FID_MUTANTS_REACHED"));

            public static int Active { get; set; } = System.Convert.ToInt32(System.Environment.GetEnvironmentVariable("FID_MUTANT") ?? "0", null);

            public static bool Is(int number)
            {
                if (Reached is not null)
                    Reached[number] = true;
                return Active == number;
            }

            private static bool[]? Remember(string? file)
            {
                if (string.IsNullOrEmpty(file))
                    return null;
                var reached = new bool[100_000];
                System.AppDomain.CurrentDomain.ProcessExit += (_, _) =>
                {
                    using var lines = new System.IO.StreamWriter(file);
                    for (var i = 0; i < reached.Length; i++)
                        if (reached[i])
                            lines.WriteLine(i);
                };
                return reached;
            }
        }
        """;

    // Starting the tests takes longer than most of them: asked to, they stay and run for one mistake after another.
    private const string Served = """
        internal static class ServedTests
        {
            public static int Main(string[] args)
            {
                if (args is not ["--serve"])
                    return Xunit.Runner.InProc.SystemConsole.ConsoleRunner.Run(args).GetAwaiter().GetResult();
                var answers = System.Console.Out;
                while (System.Console.In.ReadLine() is { } line)
                {
                    var asked = line.Split('\t');
                    Mutants.Active = int.Parse(asked[0]);
                    var said = new System.IO.StringWriter();
                    System.Console.SetOut(System.IO.TextWriter.Synchronized(said));
                    var code = Xunit.Runner.InProc.SystemConsole.ConsoleRunner.Run(asked[1..]).GetAwaiter().GetResult();
                    answers.WriteLine(code == 0 && !said.ToString().Contains("[FAIL]") ? "#passed" : "#failed");
                    answers.Flush();
                }
                return 0;
            }
        }
        """;

    private static readonly string[] ImplicitUsings =
    [
        "System",
        "System.Collections.Generic",
        "System.IO",
        "System.Linq",
        "System.Threading",
        "System.Threading.Tasks",
    ];

    // What is planted is not to anybody's taste, and need not be.
    private const string Lenient =
        "-p:TreatWarningsAsErrors=false -p:EnforceCodeStyleInBuild=false -p:RunAnalyzers=false -p:NoWarn=CS0162%3BCS8602%3BCS8604%3BCS8629";

    private PlantedCopy(string root, IReadOnlyList<Mutant> mutants) => (Root, Mutants) = (root, mutants);

    /// <summary>Where the copy is.</summary>
    public string Root { get; }

    public IReadOnlyList<Mutant> Mutants { get; }

    /// <summary>Copies what is needed, plants, and builds.</summary>
    /// <param name="repository">The repository.</param>
    /// <param name="project">The project whose mistakes are looked for, such as "Fid.Core".</param>
    /// <param name="folder">The folder of it; empty for all.</param>
    /// <param name="tests">The project with its tests.</param>
    public static async Task<PlantedCopy> MakeAsync(string repository, string project, string folder, string tests)
    {
        var root = Path.Combine(repository, ".fid", "mutants");
        if (Directory.Exists(root))
            Directory.Delete(root, recursive: true);
        foreach (var part in new[] { "src", "tests", "docs" })
            Copy(Path.Combine(repository, part), Path.Combine(root, part));
        // Some tests ask a reader written for the web.
        Directory.CreateSymbolicLink(Path.Combine(root, "web"), Path.Combine(repository, "web"));
        foreach (
            var file in Directory
                .EnumerateFiles(repository)
                .Where(f =>
                    Path.GetFileName(f) is var n && (n.EndsWith(".props", StringComparison.Ordinal) || n is "global.json" or ".editorconfig" or "Fid.slnx")
                )
        )
            File.Copy(file, Path.Combine(root, Path.GetFileName(file)));
        var mutants = Plant(repository, root, project, folder);
        await File.WriteAllTextAsync(Path.Combine(root, "src", project, "Mutants.cs"), Switch);
        var (home, program) = (Path.Combine(root, "tests", tests), Path.Combine(root, "tests", tests, tests + ".csproj"));
        await File.WriteAllTextAsync(Path.Combine(home, "ServedTests.cs"), Served);
        var settings = await File.ReadAllTextAsync(program);
        await File.WriteAllTextAsync(
            program,
            settings.Replace("</Project>", "<PropertyGroup><StartupObject>ServedTests</StartupObject></PropertyGroup></Project>", StringComparison.Ordinal)
        );
        await BuildAsync(root, tests);
        return new PlantedCopy(root, mutants);
    }

    private static List<Mutant> Plant(string repository, string root, string project, string folder)
    {
        var home = Path.Combine(root, "src", project);
        var trees = Directory
            .EnumerateFiles(home, "*.cs", SearchOption.AllDirectories)
            .Order(StringComparer.Ordinal)
            .Select(f => CSharpSyntaxTree.ParseText(File.ReadAllText(f), path: f))
            .ToList();
        var usings = CSharpSyntaxTree.ParseText(string.Concat(ImplicitUsings.Select(u => $"global using {u};")));
        // What a library refers to stands beside a program that it is part of.
        var built = Path.Combine(repository, "src", project == "Fid.Acts" ? "Fid.Server" : project, "bin", "Debug", "net10.0");
        var references = ((string)AppContext.GetData("TRUSTED_PLATFORM_ASSEMBLIES")!)
            .Split(':')
            .Concat(Directory.Exists(built) ? Directory.EnumerateFiles(built, "*.dll").Where(f => Path.GetFileNameWithoutExtension(f) != project) : [])
            .Select(f => MetadataReference.CreateFromFile(f));
        var compilation = CSharpCompilation.Create("planted", trees.Append(usings), references);
        var mutants = new List<Mutant>();
        foreach (var tree in trees.Where(t => t.FilePath.StartsWith(Path.Combine(home, folder), StringComparison.Ordinal)))
        {
            var planter = new Planter(compilation.GetSemanticModel(tree), Path.GetRelativePath(root, tree.FilePath), mutants);
            File.WriteAllText(tree.FilePath, planter.Visit(tree.GetRoot()).ToFullString());
        }
        return mutants;
    }

    private static async Task BuildAsync(string root, string tests)
    {
        var start = new ProcessStartInfo("dotnet", $"build tests/{tests} -v q -nologo {Lenient}") { WorkingDirectory = root, RedirectStandardOutput = true };
        using var build = Process.Start(start)!;
        var said = await build.StandardOutput.ReadToEndAsync();
        await build.WaitForExitAsync();
        if (build.ExitCode != 0)
            throw new InvalidOperationException(
                "What was planted does not build:\n"
                    + string.Join('\n', said.Split('\n').Where(l => l.Contains("error", StringComparison.Ordinal)).Distinct().Take(20))
            );
    }

    private static void Copy(string from, string to)
    {
        foreach (var file in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            var inside = Path.GetRelativePath(from, file);
            if (inside.Split(Path.DirectorySeparatorChar).Any(p => p is "bin" or "obj"))
                continue;
            var copy = Path.Combine(to, inside);
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }
    }
}
