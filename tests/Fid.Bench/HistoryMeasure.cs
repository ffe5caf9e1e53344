using System.Net;
using Npgsql;

namespace Fid.Bench;

/// <summary>What a long history costs: opening a record with ten years of it, and the list of all people as of a past date.</summary>
internal static class HistoryMeasure
{
    // A server that has run for some minutes has its code compiled for good; one that has just started has not.
    private const int WarmUp = 200;
    private const int Rounds = 60;
    private const string PastDay = "2023-06-15";

    public static async Task<IReadOnlyList<string>> RunAsync(string connection, string today)
    {
        await using var server = new LargeFid(connection, today);
        server.UseKestrel(0);
        server.StartServer();
        using var browser = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = server.ClientOptions.BaseAddress,
        };
        await ArrivalsMeasure.SignInAsync(browser);
        await using var source = Fid.Data.FidDatabase.Source(connection);
        var values = (long)(await AskAsync(source, "select count(*) from record_values"))!;
        var longest = (Guid)(await AskAsync(source, "select e.id from employments e where e.\"end\" is null order by e.start limit 1"))!;
        var person = (Guid)(await AskAsync(source, $"select person_id from employments where id = '{longest}'"))!;

        var (plain, opened, listed) = (new List<double>(), new List<double>(), new List<double>());
        var rows = 0;
        for (var i = -WarmUp; i < Rounds; i++)
        {
            var sql = await ArrivalsMeasure.TimeAsync(async () => rows = await ReadAsync(source, longest, person));
            var record = await ArrivalsMeasure.TimeAsync(async () => await browser.GetByteArrayAsync(new Uri($"/api/records/{longest}", UriKind.Relative)));
            if (i < 0)
                continue;
            plain.Add(sql);
            opened.Add(record);
        }
        // After the others, so that what it leaves to be cleared away is not counted with them.
        for (var i = 0; i < Rounds; i++)
            listed.Add(await ArrivalsMeasure.TimeAsync(async () => await browser.GetByteArrayAsync(new Uri($"/api/people?on={PastDay}", UriKind.Relative))));
        var ratio = ArrivalsMeasure.Median([.. opened.Zip(plain, (o, p) => o / p)]);
        return
        [
            TableRow.Of(
                $"A record with ten years of history ({rows} of {values:N0} values) opened over HTTP",
                $"{ArrivalsMeasure.Median(opened):0.0} ms; one indexed SELECT on it {ArrivalsMeasure.Median(plain):0.0} ms; ratio {ratio:0.00}",
                $"at most 3"
            ),
            TableRow.Of($"People as of a past date, among 5,000", $"{ArrivalsMeasure.Median(listed):0} ms", $"under 1 s"),
        ];
    }

    private static async Task<int> ReadAsync(NpgsqlDataSource source, Guid employment, Guid person)
    {
        await using var command = source.CreateCommand(
            "select id, owner_id, field, value::text, source, effective::text, known::text, change_id from record_values where owner_id = any($1)"
        );
        command.Parameters.AddWithValue(new[] { employment, person });
        await using var reader = await command.ExecuteReaderAsync();
        var (rows, values) = (0, new object[reader.FieldCount]);
        while (await reader.ReadAsync())
        {
            reader.GetValues(values);
            rows++;
        }
        return rows;
    }

    private static async Task<object?> AskAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        return await command.ExecuteScalarAsync();
    }
}
