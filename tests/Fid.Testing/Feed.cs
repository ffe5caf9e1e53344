using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Shouldly;

namespace Fid.Testing;

/// <summary>A feed of the test's own, which behaves as it is told.</summary>
public sealed class Feed : IAsyncDisposable
{
    private readonly WebApplication _app;
    private readonly List<string> _heard = [];
    private readonly SemaphoreSlim _news = new(0);
    private int _asked;

    private Feed(WebApplication app) => _app = app;

    public string Candidates { get; set; } = """{"candidates":[]}""";

    public string Mood { get; set; } = "well";

    public string Address => _app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();

    public static async Task<Feed> StartAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        var app = builder.Build();
        app.Urls.Add("http://127.0.0.1:0");
        var feed = new Feed(app);
        app.MapGet("/candidates", async (HttpContext http) => feed.Mood switch
            {
                "down" => Results.StatusCode(503),
                "slow" => await SlowAsync(http.RequestAborted),
                "html" => Results.Text("<html>Under maintenance</html>", "text/html"),
                "list" => Results.Text("""{"people":[]}""", "application/json"),
                "half" => Results.Text("""{"candidates":[{"id":"new"},{"givenName":"No id"}]}""", "application/json"),
                "date" => Results.Text("""{"candidates":[{"id":"new","start":"soon"}]}""", "application/json"),
                "flaky" when ++feed._asked < 3 => Results.StatusCode(500),
                _ => Results.Text(feed.Candidates, "application/json"),
            });
        app.MapPut("/candidates/{id}/hire", (string id, JsonObject status) =>
        {
            lock (feed._heard)
                feed._heard.Add($"{Uri.UnescapeDataString(id)} {status["status"]} {status["number"]} {status["start"]}");
            feed._news.Release();
            return Results.NoContent();
        });
        await app.StartAsync();
        return feed;
    }

    /// <summary>What it has been told, once it has been told that often.</summary>
    public async Task<string[]> HeardAsync(int times)
    {
        while (true)
        {
            lock (_heard)
                if (_heard.Count >= times)
                    return [.. _heard];
            (await _news.WaitAsync(TimeSpan.FromMinutes(1))).ShouldBeTrue("the feed was not told");
        }
    }

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    // Until the user who asks gives up.
    private static async Task<IResult> SlowAsync(CancellationToken gone)
    {
        await Task.Delay(Timeout.Infinite, gone).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        return Results.NoContent();
    }
}
