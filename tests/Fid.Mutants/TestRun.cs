using System.Diagnostics;
using System.Globalization;

namespace Fid.Mutants;

/// <summary>Runs tests with one mistake switched on.</summary>
/// <param name="Program">The test program.</param>
internal sealed record TestRun(string Program)
{
    // Where nothing is wrong they all pass; whoever hangs is caught too.
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    /// <summary>Whether a test catches the mistake. The tests of the same capability are asked first, then the others.</summary>
    /// <param name="capability">The folder the mistake is in.</param>
    public async Task<bool> CatchesAsync(int mutant, string capability, string space)
    {
        var own = $"{space}.{capability}";
        return capability.Length > 0 && !await PassAsync(mutant, ["-namespace", own, "-namespace", $"{own}.*"]) || !await PassAsync(mutant, []);
    }

    /// <summary>Whether all of some tests pass.</summary>
    public async Task<bool> PassAsync(int mutant, IEnumerable<string> which)
    {
        // What the code looks like, and the command, say nothing of what a rule comes to.
        string[] arguments =
        [
            "-noLogo",
            "-noColor",
            "-stopOnFail",
            "-class-",
            "*ArchitectureTests",
            "-class-",
            "*ComputeCommandTests",
            "-class-",
            "*CalledMembers",
            .. which,
        ];
        var start = new ProcessStartInfo(Program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        start.Environment["FID_MUTANT"] = mutant.ToString(CultureInfo.InvariantCulture);
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
            return false;
        }
        var text = (await said)[0];
        // Where no test is of that name, none catches anything; one that was stopped at its first failure counts nothing either.
        return !text.Contains("[FAIL]", StringComparison.Ordinal) && (run.ExitCode == 0 || text.Contains("Total: 0", StringComparison.Ordinal));
    }
}
