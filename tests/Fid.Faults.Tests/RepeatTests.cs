using System.Diagnostics;
using System.Net;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Testing;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Faults.Tests;

/// <summary>Two servers on one database, of which one or the database goes away in the middle: what is sent again under its key is
/// done once, and what nobody can know is said to be unknown.</summary>
[Collection("cluster")]
public sealed class RepeatTests : IDisposable
{
    private const int Acts = 120;
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    private readonly List<ServerProcess> _servers = [];

    [Fact]
    public async Task Acts_sent_again_under_their_keys_to_whichever_server_is_up_are_each_done_once()
    {
        await using var database = await TestDatabase.CloneAsync();
        _servers.Add(await ServerProcess.StartAsync(database.Connection));
        _servers.Add(await ServerProcess.StartAsync(database.Connection));
        using var orla = await Caller.SignedInAsync(_servers[0].Address, "orla");
        var arrivals = await orla.GetAsync("/api/arrivals");
        var (hire, record) = (arrivals["hires"]![0]!.Text("id"), arrivals["hires"]![0]!.Text("employmentId"));
        var task = (await orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().First(t => t!["done"] is null && t["skippedWhy"] is null)!.Text("key");
        var unsure = 0;
        for (var i = 0; i < Acts; i++)
        {
            // In turn a save, a tick and its taking back, each under a key of its own.
            var (key, saves) = (Guid.NewGuid(), i % 3 == 0);
            var mark = $"repeat-{i}";
            var version = saves ? (await ReadAsync(orla, i, $"/api/records/{record}")).Text("version") : null;
            var crash = i % 20 == 7 ? CrashAsync(database, i) : Task.CompletedTask;
            bool done;
            try
            {
                done = await UntilAnsweredAsync(async tried =>
                {
                    using var here = orla.MovedTo(_servers[(i + tried) % 2].Address);
                    using var response = saves
                        ? await here.SendAsync(
                            "PUT",
                            $"/api/records/{record}",
                            new
                            {
                                changes = new { room = mark },
                                from = (string?)null,
                                why = mark,
                            },
                            version,
                            key: key
                        )
                        : await here.SendAsync(
                            i % 3 == 1 ? "PUT" : "DELETE",
                            $"/api/hires/{hire}/tasks/{task}/done",
                            i % 3 == 1 ? new { done = (string?)null } : null,
                            key: key
                        );
                    if (response.StatusCode == HttpStatusCode.ServiceUnavailable)
                    {
                        unsure++;
                        (await response.JsonAsync()).Text("code").ShouldBe("unsure");
                        response.Headers.RetryAfter.ShouldNotBeNull();
                        return false;
                    }
                    response.IsSuccessStatusCode.ShouldBeTrue($"{mark}: {response.StatusCode} {await response.Content.ReadAsStringAsync()}");
                    return true;
                });
            }
            finally
            {
                await crash;
            }
            done.ShouldBeTrue(mark);
        }
        await using var source = FidDatabase.Source(database.Connection);
        (await CountAsync(source, "select count(*) from (select why from changes where why like 'repeat-%' group by why having count(*) <> 1) twice")).ShouldBe(
            0
        );
        (await CountAsync(source, "select count(*) from changes where why like 'repeat-%'")).ShouldBe(Acts / 3);
        (await CountAsync(source, $"select count(*) from changes where subject_id = '{hire}' and part = '{task}' and action = 'task.done'")).ShouldBe(Acts / 3);
        (await CountAsync(source, $"select count(*) from changes where subject_id = '{hire}' and part = '{task}' and action = 'task.undone'")).ShouldBe(
            Acts / 3
        );
        await using var connection = await source.OpenConnectionAsync();
        (await AuditChain.VerifyAsync(connection, null, default)).Broken.ShouldBeNull();
    }

    [Fact]
    public async Task One_hire_sent_to_two_servers_at_once_is_opened_once_and_answered_the_same()
    {
        await using var database = await TestDatabase.CloneAsync();
        _servers.Add(await ServerProcess.StartAsync(database.Connection));
        _servers.Add(await ServerProcess.StartAsync(database.Connection));
        using var orla = await Caller.SignedInAsync(_servers[0].Address, "orla");
        using var elsewhere = orla.MovedTo(_servers[1].Address);
        await elsewhere.GetAsync("/api/session");
        var hire = new
        {
            id = Guid.NewGuid(),
            template = "deckhand",
            start = "2027-04-05",
            typed = new
            {
                given_name = "Sent",
                family_name = "Twice",
                email = "sent.twice@example.org",
                site = "skerry",
            },
        };
        var answers = await Task.WhenAll(Enumerable.Range(0, 10).Select(i => SureAsync(i % 2 == 0 ? orla : elsewhere)));
        var said = await Task.WhenAll(answers.Select(async a => $"{a.StatusCode} {await a.Content.ReadAsStringAsync()}"));
        said.Distinct().ShouldHaveSingleItem().ShouldStartWith("Created");

        // On a slow machine one may wait longer for the others than the database is given: as a browser does, it is then sent again.
        async Task<HttpResponseMessage> SureAsync(Caller caller)
        {
            for (var tries = 1; ; tries++)
            {
                var answer = await caller.SendAsync("POST", "/api/hires", hire);
                if (answer.StatusCode != HttpStatusCode.ServiceUnavailable || tries == 10)
                    return answer;
                answer.Dispose();
            }
        }
    }

    [Fact]
    public async Task A_database_that_hangs_is_noticed_and_nothing_is_claimed_of_what_it_did()
    {
        await using var database = await TestDatabase.CloneAsync();
        _servers.Add(await ServerProcess.StartAsync(database.Connection));
        using var orla = await Caller.SignedInAsync(_servers[0].Address, "orla");
        var record = (await orla.GetAsync("/api/arrivals"))["hires"]![0]!.Text("employmentId");
        var version = (await orla.GetAsync($"/api/records/{record}")).Text("version");
        await Cluster.HangAsync();
        try
        {
            using var saved = await orla.SendAsync(
                "PUT",
                $"/api/records/{record}",
                new
                {
                    changes = new { room = "Hanging" },
                    from = (string?)null,
                    why = (string?)null,
                },
                version,
                key: Guid.NewGuid()
            );
            (saved.StatusCode, (await saved.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.ServiceUnavailable, "unsure"));
            saved.Headers.RetryAfter.ShouldNotBeNull();
            using var read = await orla.SendAsync("GET", "/api/arrivals");
            (read.StatusCode, (await read.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.ServiceUnavailable, "out-of-reach"));
            (await orla.SendAsync("GET", "/health/ready")).StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
            (await orla.SendAsync("GET", "/health/live")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }
        finally
        {
            await Cluster.ResumeAsync();
        }
        (await UntilAnsweredAsync(async _ => (await orla.SendAsync("GET", "/health/ready")).IsSuccessStatusCode)).ShouldBeTrue();
        (await UntilAnsweredAsync(async _ => (await orla.SendAsync("GET", $"/api/records/{record}")).IsSuccessStatusCode)).ShouldBeTrue();
    }

    public void Dispose()
    {
        foreach (var server in _servers)
            server.Dispose();
    }

    // Each time another part goes: the database, one server, both.
    private async Task CrashAsync(TestDatabase database, int act)
    {
        var which = act / 20 % 3;
        if (which != 1)
        {
            await Cluster.KillAsync();
            await Cluster.StartAsync();
            NpgsqlConnection.ClearAllPools();
        }
        if (which == 0)
            return;
        await _servers[act % 2].KillAsync();
        _servers[act % 2] = await ServerProcess.StartAsync(database.Connection);
    }

    private Task<System.Text.Json.Nodes.JsonNode> ReadAsync(Caller caller, int act, string path)
    {
        System.Text.Json.Nodes.JsonNode? read = null;
        return Answered();

        async Task<System.Text.Json.Nodes.JsonNode> Answered()
        {
            await UntilAnsweredAsync(async tried =>
            {
                using var here = caller.MovedTo(_servers[(act + tried) % 2].Address);
                using var response = await here.SendAsync("GET", path);
                if (!response.IsSuccessStatusCode)
                    return false;
                read = await response.JsonAsync();
                return true;
            });
            return read!;
        }
    }

    private static async Task<bool> UntilAnsweredAsync(Func<int, Task<bool>> act)
    {
        // By the clock, not by the number of tries: how many fit into a restart is the machine's affair.
        var began = Stopwatch.GetTimestamp();
        for (var tried = 0; Stopwatch.GetElapsedTime(began) < Patience; tried++)
        {
            try
            {
                if (await act(tried))
                    return true;
            }
            catch (Exception e) when (Cluster.IsCutOff(e))
            {
                // Nobody there just now.
                await Task.Yield();
            }
        }
        return false;
    }

    private static async Task<long> CountAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        return (long)(await command.ExecuteScalarAsync())!;
    }
}
