using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.Json.Nodes;
using Fid.Server.Hires;
using Fid.Testing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>How often each endpoint asks the database does not grow with what there is.</summary>
public sealed class DatabaseCallTests : IClassFixture<FirmFixture>, IDisposable
{
    private readonly FirmFixture _firm;
    private readonly ConcurrentDictionary<string, ConcurrentQueue<string>> _statements = new();
    private readonly ActivityListener _listener;

    public DatabaseCallTests(FirmFixture firm)
    {
        _firm = firm;
        _listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name == "Npgsql",
            Sample = (ref _) => ActivitySamplingResult.AllData,
            ActivityStopped = activity =>
                _statements.GetOrAdd(activity.TraceId.ToString(), _ => []).Enqueue((string?)activity.GetTagItem("db.query.text") ?? ""),
        };
        ActivitySource.AddActivityListener(_listener);
    }

    public void Dispose() => _listener.Dispose();

    [Fact]
    public async Task No_endpoint_asks_the_database_more_often_when_there_is_more()
    {
        using var piet = await _firm.As("piet");
        using var orla = await _firm.As("orla");
        var document = await piet.GetAsync("/api/openapi.json");
        var hire = await FirmFixture.HireAsync(orla, "Okafor");
        var before = await MeasureAsync(orla, document, hire);
        before.Count.ShouldBeGreaterThan(30);
        await GrowAsync(orla);
        var after = await MeasureAsync(orla, document, hire);
        before.Keys.Where(k => after[k] > before[k]).Select(k => $"{k}: {before[k]} → {after[k]}").ShouldBeEmpty();
        // Each has its reasons, and none has many.
        after.Where(c => c.Value > 30).Select(c => $"{c.Key}: {c.Value}").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_preview_of_a_hundred_rows_asks_as_often_as_one_of_ten_and_at_most_thirty_times()
    {
        using var orla = await _firm.As("orla");
        // The first of all reads who is known into memory.
        await PreviewAsync(orla, 1);
        var (few, many) = (await PreviewAsync(orla, 10), await PreviewAsync(orla, 100));
        many.ShouldBeInRange(5, 30);
        many.ShouldBe(few);
    }

    [Fact]
    public async Task Who_is_known_is_read_as_the_server_starts_and_not_by_whoever_asks_first()
    {
        await using var other = new FidInstance(_firm.Database.Connection);
        await other.Services.GetServices<IHostedService>().OfType<KnownPeopleWarmUp>().Single().ExecuteTask!;
        using var orla = await Caller.SignedInAsync(other.Address, "orla");
        var trace = ActivityTraceId.CreateRandom().ToString();
        orla.Trace = trace;
        using var known = await orla.SendAsync(
            "POST",
            "/api/hires/known",
            new
            {
                givenName = "Nobody",
                familyName = "Atall",
                birthDate = "1990-01-01",
                email = (string?)null,
                phone = (string?)null,
                start = (string?)null,
            }
        );
        (await known.JsonAsync()).AsArray().ShouldBeEmpty();
        // Whoever it may be is found in memory: what changed since is asked for, and only the people found would be read.
        _statements[trace].ShouldContain(s => s.Contains("select", StringComparison.OrdinalIgnoreCase));
        _statements[trace]
            .Where(s => s.Contains("record_values", StringComparison.Ordinal) && !s.Contains("from seals", StringComparison.Ordinal))
            .ShouldBeEmpty();
    }

    private async Task<int> PreviewAsync(Caller orla, int rows)
    {
        var body = new JsonObject
        {
            ["hires"] = new JsonArray([.. Enumerable.Range(0, rows).Select(i => (JsonNode)Records.NewHire($"Row{i}", "Preview"))]),
        }.ToJsonString();
        return await CountAsync(orla, "POST", "/api/hires/many/preview", body);
    }

    // More hires, more people, more entries of lists, more of what was done.
    private static async Task GrowAsync(Caller orla)
    {
        var body = new JsonObject
        {
            ["hires"] = new JsonArray([.. Enumerable.Range(0, 40).Select(i => (JsonNode)Records.NewHire($"Grown{i}", "Larger"))]),
        }.ToJsonString();
        using var opened = await orla.SendAsync("POST", "/api/hires/many", body);
        opened.IsSuccessStatusCode.ShouldBeTrue(await opened.Content.ReadAsStringAsync());
        for (var i = 0; i < 20; i++)
            (
                await orla.SendAsync(
                    "POST",
                    "/api/lists/teams/entries",
                    new
                    {
                        code = $"GROWN-{i}",
                        name = $"Grown {i}",
                        values = new { },
                    }
                )
            ).EnsureSuccessStatusCode();
        foreach (var one in (await opened.JsonAsync()).AsArray().Take(5))
            await orla.SaveAsync(one!.Text("employmentId"), "room", $"Loft {one!.Text("number")}");
    }

    private async Task<Dictionary<string, int>> MeasureAsync(Caller caller, JsonNode document, JsonNode hire)
    {
        var counted = new Dictionary<string, int>();
        foreach (var (path, operations) in document["paths"]!.AsObject())
        {
            if (operations!["get"] is null || path is "/api/openapi.json")
                continue;
            var address =
                path.Replace("/hires/{id}", $"/hires/{hire.Text("id")}", StringComparison.Ordinal)
                    .Replace("/records/{id}", $"/records/{hire.Text("employmentId")}", StringComparison.Ordinal)
                    .Replace("/people/{id}", $"/people/{hire.Text("employmentId")}", StringComparison.Ordinal)
                    .Replace("{key}", "room", StringComparison.Ordinal)
                    .Replace("{id}", Guid.Empty.ToString(), StringComparison.Ordinal)
                    .Replace("{version}", "0", StringComparison.Ordinal)
                    .Replace("{group}/{period}", "crew/2027-03-08", StringComparison.Ordinal)
                    .Replace("{employment}", hire.Text("employmentId"), StringComparison.Ordinal)
                    .Replace("{list}", "teams", StringComparison.Ordinal)
                    .Replace("/entries/{code}", "/entries/stores", StringComparison.Ordinal)
                    .Replace("{code}", "deckhand", StringComparison.Ordinal)
                + path switch
                {
                    "/api/records/{id}/compare" => "?on=2027-02-01&with=2027-12-31",
                    "/api/hires/{id}/start-change" => "?to=2027-06-01",
                    "/api/dates" => "?text=mon",
                    "/api/goto" => "?q=a",
                    "/api/people" => "?q=a",
                    _ => "",
                };
            // The first request of a kind compiles and warms; the second is what it takes.
            await CountAsync(caller, "GET", address, null);
            counted[path] = await CountAsync(caller, "GET", address, null);
        }
        return counted;
    }

    private async Task<int> CountAsync(Caller caller, string method, string address, string? body)
    {
        var trace = ActivityTraceId.CreateRandom().ToString();
        caller.Trace = trace;
        using var response = await caller.SendAsync(method, address, body);
        await response.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        caller.Trace = null;
        return _statements.TryGetValue(trace, out var asked) ? asked.Count : 0;
    }
}
