using System.Diagnostics;
using System.Net.Sockets;

namespace Fid.Faults.Tests;

/// <summary>A PostgreSQL that keeps what it promised, by way of the command that ./fid test gives.</summary>
internal static class Cluster
{
    private static string Command =>
        Environment.GetEnvironmentVariable("FID_FAULTS_CLUSTER")
        ?? throw new InvalidOperationException("FID_FAULTS_CLUSTER is the command that kills and starts PostgreSQL. Run ./fid test faults.");

    /// <summary>SIGKILL to all of its processes at once.</summary>
    public static Task KillAsync() => RunAsync("kill");

    /// <summary>Starts it again, which recovers what was committed.</summary>
    public static Task StartAsync() => RunAsync("start");

    /// <summary>Stops all of its processes where they stand: it takes connections and answers nothing.</summary>
    public static Task HangAsync() => RunAsync("hang");

    /// <summary>Lets them go on.</summary>
    public static Task ResumeAsync() => RunAsync("resume");

    /// <summary>Whether a request failed for nobody being there any more. A server that dies between taking a connection and its first
    /// byte shows as a bare socket's failure.</summary>
    public static bool IsCutOff(Exception e) => e is HttpRequestException or IOException or SocketException;

    private static async Task RunAsync(string what)
    {
        using var process = Process.Start(new ProcessStartInfo("bash", [Command, what]))!;
        await process.WaitForExitAsync();
        if (process.ExitCode != 0)
            throw new InvalidOperationException($"{Command} {what} ended with {process.ExitCode}.");
    }
}
