using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Fid.Bench;

/// <summary>Pay in a firm of 5,000 people, as a browser asks for it: what is read while pay is typed, and a revision of everybody's. The database is
/// the measure's own: what is revised is undone, and stays in the history.</summary>
internal static class PayMeasure
{
    private const int Rounds = 100,
        WarmUp = 40,
        Previews = 5;

    public static async Task<IReadOnlyList<string>> RunAsync(string connection, string today)
    {
        await using var server = new LargeFid(connection, today);
        server.UseKestrel(0);
        server.StartServer();
        using var browser = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = server.ClientOptions.BaseAddress,
            Timeout = TimeSpan.FromMinutes(5),
        };
        browser.DefaultRequestHeaders.Add("X-Fid-Xsrf", await ArrivalsMeasure.SignInAsync(browser));

        var arrivals = await browser.GetFromJsonAsync<JsonNode>(new Uri("/api/arrivals", UriKind.Relative));
        var record = (string)arrivals!["hires"]![0]!["employmentId"]!;
        var typed = 0;
        var readings = new List<double>();
        for (var i = -WarmUp; i < Rounds; i++)
        {
            var rate = 17m + ++typed / 100m;
            var took = await ArrivalsMeasure.TimeAsync(() => SendAsync(browser, $"/api/records/{record}/readings", new { changes = new { pay_rate = rate } }));
            if (i >= 0)
                readings.Add(took);
        }

        // As in a server that has been up for a while.
        await RevisedAsync(browser, "DK-2", percent: 1);
        var previews = new List<double>();
        for (var i = 0; i < Previews; i++)
            previews.Add(await ArrivalsMeasure.TimeAsync(() => PreviewAsync(browser, Asked(null, 2.5m))));
        var (people, made, undone) = await RevisedAsync(browser, null, 2.5m);
        return
        [
            TableRow.Of($"What a record reads of pay while it is typed", $"{ArrivalsMeasure.Median(readings):0.0} ms", $"under 30 ms"),
            TableRow.Of(
                $"The pay of {people} people revised: seen, made, undone",
                $"{ArrivalsMeasure.Median(previews) / 1000:0.00} s, {made / 1000:0.0} s, {undone / 1000:0.0} s",
                $"under 3 s and 10 s of 5,000"
            ),
        ];
    }

    private static async Task<(int People, double Made, double Undone)> RevisedAsync(HttpClient browser, string? job, decimal percent)
    {
        var (asked, id) = (Asked(job, percent), Guid.NewGuid());
        var preview = await PreviewAsync(browser, asked);
        var made = await ArrivalsMeasure.TimeAsync(() =>
            SendAsync(
                browser,
                "/api/pay-revisions",
                new
                {
                    id,
                    asked,
                    why = "measured",
                    seen = (string)preview["version"]!,
                }
            )
        );
        return ((int)preview["raised"]!, made, await ArrivalsMeasure.TimeAsync(() => SendAsync(browser, $"/api/pay-revisions/{id}/undo", null)));
    }

    private static JsonObject Asked(string? job, decimal percent) =>
        new JsonObject
        {
            ["group"] = new JsonObject
            {
                ["grade"] = null,
                ["job"] = job,
                ["site"] = null,
                ["payGroup"] = null,
            },
            ["percent"] = percent,
            ["atLeastHourly"] = 0.4m,
            ["upToBand"] = false,
            ["from"] = "2027-04-01",
        };

    private static async Task<JsonNode> PreviewAsync(HttpClient browser, JsonObject asked) =>
        JsonNode.Parse(await SendAsync(browser, "/api/pay-revisions/preview", asked))!;

    private static async Task<string> SendAsync(HttpClient browser, string path, object? body)
    {
        using var answer = await browser.PostAsJsonAsync(new Uri(path, UriKind.Relative), body);
        var said = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? said : throw new InvalidOperationException($"{path}: {said}");
    }
}
