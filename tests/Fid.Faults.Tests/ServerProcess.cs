using System.Diagnostics;
using Fid.Faults.Tests.TimeLapse;

namespace Fid.Faults.Tests;

/// <summary>The server as a process of its own, which can be killed as a machine that loses power would kill it.</summary>
internal sealed class ServerProcess : IDisposable
{
    private const string Listening = "Now listening on: ";

    private readonly Process _process;

    private ServerProcess(Process process, Uri address) => (_process, Address) = (process, address);

    public Uri Address { get; }

    /// <summary>Starts it on a free port, and waits until it listens.</summary>
    /// <param name="settings">Settings of its own.</param>
    /// <param name="clock">The file of the clock it goes by; null for the machine's, with the firm's date held still.</param>
    public static async Task<ServerProcess> StartAsync(string connection, IReadOnlyDictionary<string, string>? settings = null, string? clock = null)
    {
        // It finds the assemblies of these tests too: one of them brings the clock.
        var start = new ProcessStartInfo(
            "dotnet",
            ["exec", "--depsfile", Here("Fid.Faults.Tests.deps.json"), "--runtimeconfig", Here("Fid.Server.runtimeconfig.json"), Here("Fid.Server.dll")]
        )
        {
            RedirectStandardOutput = true,
            WorkingDirectory = AppContext.BaseDirectory,
            Environment =
            {
                ["ConnectionStrings__Fid"] = connection,
                ["ASPNETCORE_URLS"] = "http://127.0.0.1:0",
                ["Fid__Today"] = "2027-03-01",
                ["Serilog__MinimumLevel__Default"] = "Fatal",
                ["Serilog__MinimumLevel__Override__Microsoft.Hosting.Lifetime"] = "Information",
            },
        };
        foreach (var (name, value) in settings ?? new Dictionary<string, string>())
            start.Environment[name.Replace(":", "__", StringComparison.Ordinal)] = value;
        if (clock is not null)
        {
            start.Environment["ASPNETCORE_HOSTINGSTARTUPASSEMBLIES"] = typeof(SimulatedTime).Assembly.GetName().Name;
            start.Environment[SimulatedTime.Variable] = clock;
            start.Environment.Remove("Fid__Today");
        }
        var process = Process.Start(start)!;
        string? line;
        do line = await process.StandardOutput.ReadLineAsync() ?? throw new InvalidOperationException("The server ended before it listened.");
        while (!line.Contains(Listening, StringComparison.Ordinal));
        // What it says from here on is read and forgotten: a full pipe would hold it up.
        _ = process.StandardOutput.ReadToEndAsync();
        return new ServerProcess(process, new Uri(line[(line.IndexOf(Listening, StringComparison.Ordinal) + Listening.Length)..].Trim()));
    }

    private static string Here(string file) => Path.Combine(AppContext.BaseDirectory, file);

    /// <summary>SIGKILL.</summary>
    public async Task KillAsync()
    {
        _process.Kill(entireProcessTree: true);
        await _process.WaitForExitAsync();
    }

    public void Dispose()
    {
        if (!_process.HasExited)
            _process.Kill(entireProcessTree: true);
        _process.Dispose();
    }
}
