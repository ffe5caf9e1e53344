using System.Diagnostics;
using System.Net.Sockets;
using System.Text;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Faults.Tests;

/// <summary>./fid start, stop and reset as somebody types them, with databases of their own.</summary>
public sealed class CommandTests : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(3);
    private readonly string _state = Path.Combine(Root, ".fid", "tests", $"state-{Guid.NewGuid():N}");
    private readonly List<Process> _started = [];

    private static string Root =>
        Environment.GetEnvironmentVariable("FID_ROOT") ?? throw new InvalidOperationException("FID_ROOT is the checkout. Run ./fid test faults.");

    [Theory]
    [InlineData("start --port 0", "--port takes a number from 1 to 65535, not 0.")]
    [InlineData("start --port 65536", "--port takes a number from 1 to 65535, not 65536.")]
    [InlineData("start --port http", "--port takes a number from 1 to 65535, not http.")]
    [InlineData("start --today 2027-02-30", "--today takes a date such as 2027-03-01, not 2027-02-30.")]
    [InlineData("start --today tomorrow", "--today takes a date such as 2027-03-01, not tomorrow.")]
    [InlineData("start --demo 299", "--demo takes the word large, or a number of people from 300 to 90000.")]
    [InlineData("start --demo 90001", "--demo takes the word large, or a number of people from 300 to 90000.")]
    [InlineData("start --fast", "start does not know --fast.")]
    [InlineData("begin", "There is no command begin.")]
    [InlineData("test everything", "test takes core, server, browser, web, faults or mutants, not everything.")]
    public async Task What_cannot_be_asked_is_said_before_anything_is_done(string asked, string said)
    {
        var (code, output) = await RunAsync(asked.Split(' '));
        (code, output.Contains(said, StringComparison.Ordinal)).ShouldBe((1, true), output);
        Directory.Exists(_state).ShouldBeFalse();
    }

    [Fact]
    public async Task What_is_started_serves_and_keeps_what_was_entered_until_it_is_reset()
    {
        var port = FreePort();
        var address = new Uri($"http://127.0.0.1:{port}");
        var first = await StartAsync(port, address);
        string record;
        using (var orla = await Caller.SignedInAsync(address, "orla"))
        {
            var hires = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray();
            hires.Count.ShouldBeGreaterThan(10);
            record = hires[0]!.Text("employmentId");
            var version = (await orla.GetAsync($"/api/records/{record}")).Text("version");
            var entered = new
            {
                changes = new { room = "B 12" },
                from = (string?)null,
                why = "Moved",
            };
            using var saved = await orla.SendAsync("PUT", $"/api/records/{record}", entered, version);
            saved.IsSuccessStatusCode.ShouldBeTrue();
        }
        // What runs is found, not started twice; elsewhere than where it runs it can be stopped, and the database with it.
        var (second, again) = await RunAsync("start", "--port", $"{FreePort()}");
        (second, again.Contains($"Fid is running already at {address.ToString().TrimEnd('/')}", StringComparison.Ordinal)).ShouldBe((1, true), again);
        var (stopped, stop) = await RunAsync("stop");
        (stopped, stop.Contains("Stopped the server", StringComparison.Ordinal)).ShouldBe((0, true), stop);
        await first.WaitForExitAsync(TestContext.Current.CancellationToken).WaitAsync(Patience, TestContext.Current.CancellationToken);
        (IsListening(port), File.Exists(Path.Combine(_state, "server.pid")), Directory.Exists(Path.Combine(_state, "postgres", "data"))).ShouldBe(
            (false, false, true)
        );
        (await RunAsync("stop")).Code.ShouldBe(0);

        // Started again it has what was entered; Ctrl C where it runs ends it and its database.
        var next = await StartAsync(port, address);
        using (var orla = await Caller.SignedInAsync(address, "orla"))
            (await orla.GetAsync($"/api/records/{record}")).ToJsonString().ShouldContain("B 12");
        using (var interrupt = Process.Start("kill", ["-INT", "--", $"-{next.Id}"]))
            await interrupt.WaitForExitAsync(TestContext.Current.CancellationToken);
        await next.WaitForExitAsync(TestContext.Current.CancellationToken).WaitAsync(Patience, TestContext.Current.CancellationToken);
        (IsListening(port), File.Exists(Path.Combine(_state, "postgres", "data", "postmaster.pid"))).ShouldBe((false, false));

        // Nothing is deleted by mistake, and all of it when it is meant.
        var (kept, refused) = await RunAsync(["reset"], "yes\n");
        (kept, refused.Contains("Nothing was deleted.", StringComparison.Ordinal), Directory.Exists(Path.Combine(_state, "postgres"))).ShouldBe(
            (1, true, true)
        );
        (await RunAsync(["reset"], "reset\n")).Code.ShouldBe(0);
        Directory.Exists(Path.Combine(_state, "postgres")).ShouldBeFalse();
        (await RunAsync(["reset"], "")).Output.ShouldContain("There is nothing to reset.");
    }

    private async Task<Process> StartAsync(int port, Uri address)
    {
        // A group of its own, as a terminal gives it: Ctrl C comes to all of it. What runs in the background is told to ignore it.
        string[] start = ["--default-signal=INT", "setsid", Path.Combine(Root, "fid"), "start", "--port", $"{port}", "--today", "2027-03-01"];
        var process = Process.Start(Command("env", start))!;
        _started.Add(process);
        var said = new StringBuilder();
        using var patience = new CancellationTokenSource(Patience);
        while (await process.StandardOutput.ReadLineAsync(patience.Token) is { } line)
        {
            said.AppendLine(line);
            if (!line.Contains($"Fid is at {address.ToString().TrimEnd('/')}", StringComparison.Ordinal))
                continue;
            // What it says from here on is read and forgotten: a full pipe would hold it up.
            _ = process.StandardOutput.ReadToEndAsync(CancellationToken.None);
            return process;
        }
        throw new InvalidOperationException($"It did not start: {said}{await process.StandardError.ReadToEndAsync(patience.Token)}");
    }

    private Task<(int Code, string Output)> RunAsync(params string[] arguments) => RunAsync(arguments, "");

    private async Task<(int Code, string Output)> RunAsync(string[] arguments, string typed)
    {
        using var process = Process.Start(Command(Path.Combine(Root, "fid"), arguments))!;
        await process.StandardInput.WriteAsync(typed);
        process.StandardInput.Close();
        var said = await Task.WhenAll(process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync()).WaitAsync(Patience);
        await process.WaitForExitAsync();
        return (process.ExitCode, string.Concat(said));
    }

    private ProcessStartInfo Command(string program, string[] arguments) =>
        new(program, arguments)
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            Environment = { ["FID_STATE"] = _state },
        };

    private static int FreePort()
    {
        using var listener = new TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static bool IsListening(int port)
    {
        using var client = new TcpClient();
        try
        {
            client.Connect("127.0.0.1", port);
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }

    public void Dispose()
    {
        foreach (var process in _started.Where(p => !p.HasExited))
            process.Kill(entireProcessTree: true);
        _started.ForEach(p => p.Dispose());
        if (!Directory.Exists(_state))
            return;
        using (var stop = Process.Start(Command(Path.Combine(Root, "fid"), ["stop"])))
            stop!.WaitForExit();
        Directory.Delete(_state, recursive: true);
    }
}
