using System.Diagnostics;
using System.Globalization;
using System.Text;
using Fid.Acts.Exchange;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;

namespace Fid.Bench;

/// <summary>10,000 jobs from a sheet, read, checked and committed: the time as a ratio to a bare COPY of the same rows in the same run.
/// And 100,000 of them, with the memory that takes.</summary>
internal static class ImportMeasure
{
    private const string Held = "LIFEJACKET; RADIO,SEA essential; MED desirable";

    private const int Rounds = 7;

    public static async Task<string[]> RunAsync(string connection)
    {
        await using var source = FidDatabase.Source(connection);
        var (imports, copies, ratios) = (new List<double>(), new List<double>(), new List<double>());
        for (var i = -3; i < Rounds; i++)
        {
            // In turn, so that both meet the machine in the same mood; the first rounds warm up.
            var import = await ImportAsync(source, 10_000);
            var copy = await CopyAsync(source);
            await ClearAsync(source);
            if (i < 0)
                continue;
            imports.Add(import);
            copies.Add(copy);
            ratios.Add(import / copy);
        }
        GC.Collect();
        var large = await ImportAsync(source, 100_000);
        var memory = Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000;
        await ClearAsync(source);
        return
        [
            TableRow.Of(
                $"10,000 jobs from a sheet: read, checked, committed",
                $"{Median(imports):0} ms; bare COPY {Median(copies):0} ms; ratio {Median(ratios):0.00}",
                $"at most 5"
            ),
            TableRow.Of($"100,000 jobs from a sheet", $"{large / 1000:0.0} s; most memory {memory} MB, the measure's own included", $"does not fall over"),
        ];
    }

    private static async Task<double> ImportAsync(NpgsqlDataSource source, int rows)
    {
        var sheet = Sheet(rows);
        var today = SystemClock.Instance.GetCurrentInstant().InUtc().Date;
        await using var services = ActsOf.Database(source, today);
        await using var scope = services.CreateAsyncScope();
        var (db, orla) = (scope.ServiceProvider.GetRequiredService<FidDb>(), await ActsOf.CoordinatorAsync(scope.ServiceProvider));
        var now = Instant.FromUnixTimeSeconds(SystemClock.Instance.GetCurrentInstant().ToUnixTimeSeconds());
        // In a state that no server's worker takes up: this measures the work, not who does it.
        var seals = scope.ServiceProvider.GetRequiredService<SheetSeals>();
        var run = new ImportRun
        {
            List = "jobs",
            FileName = "bench.csv",
            Size = sheet.Length,
            At = now,
            ById = orla.Account,
            ByName = "bench",
            State = ImportState.Dropped,
            SealedKey = seals.Make(),
        };
        db.Add(run);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        var began = Stopwatch.GetTimestamp();
        await scope.ServiceProvider.GetRequiredService<ImportFiles>().KeepAsync(run, new MemoryStream(sheet), default);
        await scope.ServiceProvider.GetRequiredService<ImportCheck>().ReadAsync(run, today, default);
        await scope.ServiceProvider.GetRequiredService<CommitImport>().DoAsync(run, orla, default);
        var time = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
        if (run.State != ImportState.Committed || run.New != rows)
            throw new InvalidOperationException($"Not imported: {run.State}, {run.New} new.");
        return time;
    }

    // The rows just imported, as text, taken out and put back by COPY alone.
    private static async Task<double> CopyAsync(NpgsqlDataSource source)
    {
        await using var connection = await source.OpenConnectionAsync();
        string rows;
        using (var read = await connection.BeginTextExportAsync("copy (select * from list_entries where list = 'jobs' and code like 'BENCH-%') to stdout"))
            rows = await read.ReadToEndAsync();
        await using (var delete = new NpgsqlCommand("delete from list_entries where list = 'jobs' and code like 'BENCH-%'", connection))
            await delete.ExecuteNonQueryAsync();
        var began = Stopwatch.GetTimestamp();
        await using (var write = await connection.BeginTextImportAsync("copy list_entries from stdin"))
            await write.WriteAsync(rows);
        return Stopwatch.GetElapsedTime(began).TotalMilliseconds;
    }

    private static async Task ClearAsync(NpgsqlDataSource source)
    {
        await using var clear = source.CreateCommand(
            """
            delete from list_entries where list = 'jobs' and code like 'BENCH-%';
            delete from import_rows r using import_runs u where u.id = r.run_id and u.file_name = 'bench.csv';
            delete from changes c using import_runs u where u.id = c.subject_id and u.file_name = 'bench.csv';
            delete from import_runs where file_name = 'bench.csv';
            """
        );
        await clear.ExecuteNonQueryAsync();
    }

    private static byte[] Sheet(int rows)
    {
        var text = new StringBuilder("Code,Name,Name in German,Family,Grade,Occupation code,Safety-critical,Overtime,Items to issue,Certificates\n");
        for (var i = 0; i < rows; i++)
            text.Append(
                CultureInfo.InvariantCulture,
                $"BENCH-{i:000000},Job number {i},Stelle {i},CREW,C{i % 6 + 1},{1000 + i % 9000},{(i % 3 == 0 ? "no" : "yes")},paid,{Held}\n"
            );
        return Encoding.UTF8.GetBytes(text.ToString());
    }

    private static double Median(List<double> values) => values.Order().ElementAt(values.Count / 2);
}
