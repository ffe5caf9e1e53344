using System.Diagnostics;
using System.Globalization;

namespace Fid.Mutants;

/// <summary>The tests, started once and asked for one mistake after another. What they came to know by one may hide the next: what passes
/// here is to be run again by tests that are started for it.</summary>
/// <param name="program">The test program.</param>
/// <param name="longest">So long they take at most where nothing is wrong; what hangs is caught.</param>
internal sealed class ServedTests(string program, TimeSpan longest) : IDisposable
{
    private Process? _run;

    /// <summary>Whether all tests of some classes pass with a mistake switched on.</summary>
    public async Task<bool> PassAsync(int mutant, IEnumerable<string> classes)
    {
        _run ??= Start();
        string[] asked = [mutant.ToString(CultureInfo.InvariantCulture), .. TestRun.Arguments(classes)];
        using var patience = new CancellationTokenSource(longest);
        try
        {
            await _run.StandardInput.WriteLineAsync(string.Join('\t', asked));
            await _run.StandardInput.FlushAsync(patience.Token);
            while (await _run.StandardOutput.ReadLineAsync(patience.Token) is { } line)
                if (line.StartsWith('#'))
                    return line == "#passed";
        }
        catch (Exception e) when (e is OperationCanceledException or IOException)
        {
            // It hangs, or has ended.
        }
        Dispose();
        return false;
    }

    private Process Start()
    {
        var run = Process.Start(
            new ProcessStartInfo(program, ["--serve"])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        // What nobody reads would stop it once there is enough of it.
        run.BeginErrorReadLine();
        return run;
    }

    public void Dispose()
    {
        if (_run is { HasExited: false } run)
            run.Kill(entireProcessTree: true);
        _run?.Dispose();
        _run = null;
    }
}
