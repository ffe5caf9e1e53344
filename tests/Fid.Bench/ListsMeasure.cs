using System.Net;
using System.Net.Http.Json;

namespace Fid.Bench;

/// <summary>What lists take at the server among 5,000 people and among ten times as many: none grows with the firm.</summary>
internal static class ListsMeasure
{
    private const int WarmUp = 10;
    private const int Rounds = 20;
    private const int Rows = 100;

    // What somebody waits for all day. What has no goal of its own is held to the ratio alone.
    private static readonly (string What, string Path, string Goal)[] Lists =
    [
        ("People, a page", "/api/people", ""),
        ("People as of a past day, a page", "/api/people?on=2023-06-15", ""),
        ("People found by a name", "/api/people?q=reyes", ""),
        ("People by a name nobody has", "/api/people?q=zzzz", ""),
        ("Go to, by a name", "/api/goto?q=reyes", ""),
        ("Entries of the list of jobs, with how many hold each", "/api/lists/jobs/entries", ""),
        ("Entries of the list of seats, with how many hold each", "/api/lists/seats/entries", ""),
        ("Fields", "/api/fields", "; under 100 ms"),
        ("How filled each field is", "/api/fields/filled", ""),
        ("Candidates from recruiting", "/api/intake", ""),
        ("My tasks of a coordinator with 600 hires", "/api/tasks", "; under 150 ms"),
        ("Arrivals, 600 hires", "/api/arrivals", "; under 150 ms"),
    ];

    /// <param name="connection">The database of 5,000 people.</param>
    /// <param name="larger">The database of ten times as many.</param>
    public static async Task<IReadOnlyList<string>> RunAsync(string connection, string larger, string today)
    {
        // What the first server runs is still being compiled for good while it is measured: that is thrown away.
        await MeasureAsync(connection, today);
        var (few, many) = (await MeasureAsync(connection, today), await MeasureAsync(larger, today));
        var rows = Lists
            .Select(
                (list, i) =>
                    TableRow.Of(
                        $"{list.What}: among 5,000 and among 50,000 people",
                        $"{few[i]:0.0} ms; {many[i]:0.0} ms; ratio {many[i] / few[i]:0.00}",
                        $"ratio at most 3{list.Goal}"
                    )
            )
            .ToList();
        rows.Add(
            TableRow.Of(
                $"A preview of {Rows} hires: among 5,000 and among 50,000 people",
                $"{few[^1]:0} ms; {many[^1]:0} ms; ratio {many[^1] / few[^1]:0.00}",
                $"under 300 ms"
            )
        );
        return rows;
    }

    // The medians of the lists in their order, and of the preview last.
    private static async Task<double[]> MeasureAsync(string connection, string today)
    {
        await using var server = new LargeFid(connection, today);
        server.UseKestrel(0);
        server.StartServer();
        using var browser = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = server.ClientOptions.BaseAddress,
        };
        var token = await ArrivalsMeasure.SignInAsync(browser);
        var medians = new List<double>();
        foreach (var (_, path, _) in Lists)
            medians.Add(await MedianAsync(() => browser.GetByteArrayAsync(new Uri(path, UriKind.Relative))));
        medians.Add(
            await MedianAsync(async () =>
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, new Uri("/api/hires/many/preview", UriKind.Relative))
                {
                    Content = JsonContent.Create(new { hires = Hires() }),
                };
                request.Headers.Add("X-Fid-Xsrf", token);
                using var response = await browser.SendAsync(request);
                response.EnsureSuccessStatusCode();
                await response.Content.ReadAsByteArrayAsync();
            })
        );
        return [.. medians];
    }

    private static object[] Hires() =>
        [
            .. Enumerable
                .Range(0, Rows)
                .Select(i => new
                {
                    id = Guid.CreateVersion7(),
                    template = "deckhand",
                    start = "2027-06-07",
                    typed = new
                    {
                        given_name = $"Row{i}",
                        family_name = "Measured",
                        birth_date = "1990-02-03",
                        email = $"row{i}@example.org",
                        site = "skerry",
                    },
                }),
        ];

    private static async Task<double> MedianAsync(Func<Task> work)
    {
        var times = new List<double>();
        for (var i = -WarmUp; i < Rounds; i++)
        {
            var time = await ArrivalsMeasure.TimeAsync(work);
            if (i >= 0)
                times.Add(time);
        }
        return ArrivalsMeasure.Median(times);
    }
}
