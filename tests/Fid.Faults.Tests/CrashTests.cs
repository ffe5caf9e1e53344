using System.Collections.Concurrent;
using System.Net;
using Fid.Acts.People;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Faults.Tests;

/// <summary>A thousand saves, while the server and PostgreSQL are killed again and again in the middle of them.</summary>
[Collection("cluster")]
public sealed class CrashTests(ITestOutputHelper output) : IDisposable
{
    private const int Saves = 1000;
    private const int Workers = 8;
    private const int Crashes = 9;

    private readonly ConcurrentQueue<string> _answered = new();
    private readonly SemaphoreSlim _one = new(0);
    private readonly Lock _door = new();
    private TaskCompletionSource<Uri> _up = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private ServerProcess? _server;
    private int _attempts;
    private int _taken;

    [Fact]
    public async Task Every_save_that_was_answered_is_there_whole_and_none_is_there_half()
    {
        await using var database = await TestDatabase.CloneAsync();
        await StartAsync(database);
        using (var orla = await Caller.SignedInAsync(_server!.Address, "orla"))
        {
            var people = (await orla.GetAsync("/api/people"))["people"]!.AsArray().Select(p => p!.Text("employmentId")).Take(Workers).ToArray();
            var working = Task.WhenAll(people.Select(id => WorkAsync(orla, id)));
            await CrashAsync(database, working);
            await working;
        }

        output.WriteLine($"{_answered.Count} saves answered in {_attempts} attempts");
        _answered.Count.ShouldBe(Saves);
        _attempts.ShouldBeGreaterThan(Saves, "No crash met a save: nothing was proved.");
        await using var source = FidDatabase.Source(database.Connection);
        var values = await ValuesOfAsync(source);
        foreach (var mark in _answered)
            values.ShouldContainKey(mark);
        // Those that were not answered may be there, but then whole.
        foreach (var (mark, held) in values)
            held.ShouldBe([$"room \"{mark}\"", $"town \"{mark}\""], mark);
        await using var connection = await source.OpenConnectionAsync();
        (await AuditChain.VerifyAsync(connection, null, default)).Broken.ShouldBeNull();
        await using var db = FidDatabase.Open(source);
        (await ProjectionCheck.FirstWrongAsync(db, default)).ShouldBeNull();
    }

    public void Dispose()
    {
        _server?.Dispose();
        _one.Dispose();
    }

    // One record a worker, so that each save's version is its own.
    private async Task WorkAsync(Caller caller, string record)
    {
        while (Interlocked.Increment(ref _taken) <= Saves)
        while (!await SaveAsync(caller, record)) { }
    }

    private async Task<bool> SaveAsync(Caller caller, string record)
    {
        var here = caller.MovedTo(await Up);
        var mark = $"save-{Interlocked.Increment(ref _attempts)}";
        try
        {
            var version = (await here.GetAsync($"/api/records/{record}")).Text("version");
            using var response = await here.SendAsync(
                "PUT",
                $"/api/records/{record}",
                new
                {
                    changes = new { town = mark, room = mark },
                    from = (string?)null,
                    why = mark,
                },
                version
            );
            if (response.StatusCode != HttpStatusCode.OK)
            {
                ((int)response.StatusCode).ShouldBeGreaterThanOrEqualTo(500, await response.Content.ReadAsStringAsync());
                return false;
            }
            _answered.Enqueue(mark);
            _one.Release();
            return true;
        }
        catch (Exception e) when (Cluster.IsCutOff(e))
        {
            return false;
        }
        finally
        {
            here.Dispose();
        }
    }

    // Crashes are spread over the saves; saves that wait for the server to be back do not count as tries.
    private async Task CrashAsync(TestDatabase database, Task working)
    {
        for (var crash = 0; crash < Crashes && !working.IsCompleted; crash++)
        {
            var next = Saves * (crash + 1) / (Crashes + 1);
            while (_answered.Count < next && !working.IsCompleted)
                await Task.WhenAny(working, _one.WaitAsync());
            lock (_door)
                _up = new TaskCompletionSource<Uri>(TaskCreationOptions.RunContinuationsAsynchronously);
            if (crash % 3 != 1)
                await _server!.KillAsync();
            if (crash % 3 != 0)
                await Cluster.KillAsync();
            if (crash % 3 != 0)
                await Cluster.StartAsync();
            NpgsqlConnection.ClearAllPools();
            if (crash % 3 != 1)
                await StartAsync(database);
            else
                Open();
        }
    }

    private async Task StartAsync(TestDatabase database)
    {
        _server?.Dispose();
        _server = await ServerProcess.StartAsync(database.Connection);
        Open();
    }

    private Task<Uri> Up
    {
        get
        {
            lock (_door)
                return _up.Task;
        }
    }

    private void Open() => _up.TrySetResult(_server!.Address);

    // Of every save that left a trace: what it wrote.
    private static async Task<Dictionary<string, string[]>> ValuesOfAsync(NpgsqlDataSource source)
    {
        await using var command = source.CreateCommand(
            """
            select c.why, coalesce(array_agg(v.field || ' ' || v.value order by v.field) filter (where v.id is not null), '{}')
            from changes c left join record_values v on v.change_id = c.id where c.why like 'save-%' group by c.id, c.why
            """
        );
        await using var reader = await command.ExecuteReaderAsync();
        var values = new Dictionary<string, string[]>();
        while (await reader.ReadAsync())
            values.Add(reader.GetString(0), reader.GetFieldValue<string[]>(1));
        return values;
    }
}
