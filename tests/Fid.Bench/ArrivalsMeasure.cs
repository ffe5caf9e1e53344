using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using Npgsql;

namespace Fid.Bench;

/// <summary>Arrivals with 600 open hires: the time at the server as a ratio to the same rows fetched by plain SQL in the same run.</summary>
internal static class ArrivalsMeasure
{
    private const int Rounds = 30;

    // What Arrivals shows comes from these rows and columns, whoever fetches them.
    private const string PlainSql = """
        select h.id, h.employment_id, r.person_id, e.number, r.given_name, r.family_name, r.job_code, r.kind, r.site_code, r.manager_id, h.start, h.accepted,
               h.coordinator_id, u.display_name, r.calendar_code, r.missing, r.filled, h.template_code, h.template_version
        from hires h join records_now r using (employment_id) join employments e on e.id = h.employment_id left join users u on u.id = h.coordinator_id
        where h.closed is null order by h.start, r.family_name, r.given_name, h.id;
        select t.hire_id, t.key, t.name, t.stage_key, t.owner, t.calendar_code, t.work, t.opens_anchor, t.opens_amount, t.opens_unit,
                  t.due_anchor, t.due_amount,
               t.due_unit, t.after, t.lags, t.required, t.day_one, t.done, t.skipped_why is not null
        from hire_tasks t join hires h on h.id = t.hire_id where h.closed is null order by t.hire_id, t.position;
        """;

    public static async Task<string> RunAsync(string connection, string today)
    {
        await using var server = new LargeFid(connection, today);
        server.UseKestrel(0);
        server.StartServer();
        using var browser = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = server.ClientOptions.BaseAddress,
        };
        await SignInAsync(browser);
        await using var source = Fid.Data.FidDatabase.Source(connection);

        var (plain, arrivals) = (new List<double>(), new List<double>());
        var (rows, bytes) = (0, 0);
        for (var i = -10; i < Rounds; i++)
        {
            // In turn, so that both meet the machine in the same mood; the first rounds warm up.
            var sql = await TimeAsync(async () => rows = await ReadAsync(source));
            var page = await TimeAsync(async () => bytes = (await browser.GetByteArrayAsync(new Uri("/api/arrivals", UriKind.Relative))).Length);
            if (i < 0)
                continue;
            plain.Add(sql);
            arrivals.Add(page);
        }
        var ratio = Median([.. arrivals.Zip(plain, (a, p) => a / p)]);
        return TableRow.Of(
            $"Arrivals, 600 hires ({rows} rows, {bytes / 1000} kB)",
            $"{Median(arrivals):0.0} ms; plain SQL {Median(plain):0.0} ms; ratio {ratio:0.00}",
            $"at most 3; under 150 ms"
        );
    }

    private static async Task<int> ReadAsync(NpgsqlDataSource source)
    {
        var rows = 0;
        await using var command = source.CreateCommand(PlainSql);
        await using var reader = await command.ExecuteReaderAsync();
        do
        {
            var values = new object[reader.FieldCount];
            while (await reader.ReadAsync())
            {
                reader.GetValues(values);
                rows++;
            }
        } while (await reader.NextResultAsync());
        return rows;
    }

    /// <summary>Signs in as the coordinator, and answers the token that acts are sent with.</summary>
    internal static async Task<string> SignInAsync(HttpClient browser)
    {
        using var session = await browser.GetAsync(new Uri("/api/session", UriKind.Relative));
        var token = session.Headers.GetValues("Set-Cookie").Select(c => c.Split(';')[0]).Single(c => c.StartsWith("fid-xsrf=", StringComparison.Ordinal))[9..];
        using var request = new HttpRequestMessage(HttpMethod.Post, new Uri("/api/session", UriKind.Relative))
        {
            Content = JsonContent.Create(new { email = "orla@halyard.example", password = "halyard-sound-ferries" }),
        };
        request.Headers.Add("X-Fid-Xsrf", Uri.UnescapeDataString(token));
        using var answer = await browser.SendAsync(request);
        answer.EnsureSuccessStatusCode();
        var renewed = answer.Headers.TryGetValues("Set-Cookie", out var cookies)
            ? cookies.Select(c => c.Split(';')[0]).LastOrDefault(c => c.StartsWith("fid-xsrf=", StringComparison.Ordinal))
            : null;
        return Uri.UnescapeDataString(renewed?[9..] ?? token);
    }

    internal static async Task<double> TimeAsync(Func<Task> work)
    {
        var began = Stopwatch.GetTimestamp();
        await work();
        return Stopwatch.GetElapsedTime(began).TotalMilliseconds;
    }

    internal static double Median(List<double> values) => values.Order().ElementAt(values.Count / 2);
}
