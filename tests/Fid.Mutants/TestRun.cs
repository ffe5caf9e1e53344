using System.Diagnostics;
using System.Globalization;

namespace Fid.Mutants;

/// <summary>Runs tests that are started for one mistake.</summary>
/// <param name="Program">The test program.</param>
/// <param name="Longest">So long they take at most where nothing is wrong; what hangs is caught too.</param>
internal sealed record TestRun(string Program, TimeSpan Longest)
{
    // What the code looks like, and the command, say nothing of what a rule comes to.
    private static readonly string[] Others = ["ArchitectureTests", "StructureTests", "ComputeCommandTests", "CalledMembers"];

    /// <summary>What a run of some classes is told.</summary>
    public static IEnumerable<string> Arguments(IEnumerable<string> classes) =>
        ["-noLogo", "-noColor", "-stopOnFail", .. classes.SelectMany(c => new[] { "-class", c })];

    /// <summary>The test classes that can tell.</summary>
    public async Task<string[]> ClassesAsync() =>
        [
            .. (await RunAsync(0, ["-noLogo", "-noColor", "-list", "classes"]))
                .Said.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Where(c => Others.All(o => !c.EndsWith("." + o, StringComparison.Ordinal))),
        ];

    /// <summary>Whether all tests of some classes pass.</summary>
    public async Task<bool> PassAsync(int mutant, IEnumerable<string> classes) => await FailureAsync(mutant, classes, reached: null) is null;

    /// <summary>What a test of some classes says that fails; null where all pass.</summary>
    /// <param name="reached">The file that then says by which mistakes they came; null for none.</param>
    public async Task<string?> FailureAsync(int mutant, IEnumerable<string> classes, string? reached)
    {
        var (isOver, code, said) = await RunAsync(mutant, Arguments(classes), reached);
        return isOver && code == 0 && !said.Contains("[FAIL]", StringComparison.Ordinal) ? null : said;
    }

    private async Task<(bool IsOver, int Code, string Said)> RunAsync(int mutant, IEnumerable<string> arguments, string? reached = null)
    {
        var start = new ProcessStartInfo(Program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        start.Environment["FID_MUTANT"] = mutant.ToString(CultureInfo.InvariantCulture);
        start.Environment["FID_MUTANTS_REACHED"] = reached;
        using var run = Process.Start(start)!;
        var said = Task.WhenAll(run.StandardOutput.ReadToEndAsync(), run.StandardError.ReadToEndAsync());
        using var patience = new CancellationTokenSource(Longest);
        try
        {
            await run.WaitForExitAsync(patience.Token);
        }
        catch (OperationCanceledException)
        {
            run.Kill(entireProcessTree: true);
            return (false, -1, "");
        }
        return (true, run.ExitCode, (await said)[0]);
    }
}
