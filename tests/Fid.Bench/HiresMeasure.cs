using System.Diagnostics;
using System.Globalization;
using System.Text;
using Fid.Acts.Exchange;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using NodaTime.Text;

namespace Fid.Bench;

/// <summary>Hires opened from a sheet in a firm of 5,000 people, from the upload to their checklists. The database is the measure's
/// own: what is opened stays in it.</summary>
internal static class HiresMeasure
{
    private const int Hires = 500,
        WarmUp = 20;

    public static async Task<string> RunAsync(string connection, string on)
    {
        var today = LocalDatePattern.Iso.Parse(on).Value;
        await using var source = FidDatabase.Source(connection);
        await using var services = ActsOf.Database(source, today);
        // A server that opens hires from sheets has been running for a while.
        await OpenAsync(services, today, WarmUp, "Warmed");
        var (whole, read) = await OpenAsync(services, today, Hires, "Measured");
        return TableRow.Of(
            $"{Hires} hires opened from a sheet among 5,000 people, checklists and all",
            $"{whole:0.0} s, {read:0.0} s of it reading and checking",
            $"at most 5 s"
        );
    }

    private static async Task<(double Whole, double Read)> OpenAsync(IServiceProvider services, LocalDate today, int hires, string given)
    {
        await using var scope = services.CreateAsyncScope();
        var (db, orla) = (scope.ServiceProvider.GetRequiredService<FidDb>(), await ActsOf.CoordinatorAsync(scope.ServiceProvider));
        var sites = await db.ListEntries.Where(e => e.List == "sites" && !e.Retired).Select(e => e.Code).OrderBy(c => c).ToArrayAsync();
        var sheet = new StringBuilder("Role template,Start,Given name,Family name,E-mail,Site\n");
        for (var i = 0; i < hires; i++)
            sheet.Append(
                CultureInfo.InvariantCulture,
                $"{Template(i)},{today.PlusDays(30 + i % 40):uuuu'-'MM'-'dd},{given}{i},Newcomer,{given}.{i}@example.org,{sites[i % sites.Length]}\n"
            );

        var now = Instant.FromUnixTimeSeconds(SystemClock.Instance.GetCurrentInstant().ToUnixTimeSeconds());
        var seals = scope.ServiceProvider.GetRequiredService<SheetSeals>();
        var run = new ImportRun
        {
            List = PeopleTarget.Key,
            FileName = "hires.csv",
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
        await scope.ServiceProvider.GetRequiredService<ImportFiles>().KeepAsync(run, new MemoryStream(Encoding.UTF8.GetBytes(sheet.ToString())), default);
        await scope.ServiceProvider.GetRequiredService<ImportCheck>().ReadAsync(run, today, default);
        var read = Stopwatch.GetElapsedTime(began).TotalSeconds;
        await scope.ServiceProvider.GetRequiredService<CommitImport>().DoAsync(run, orla, default);
        var whole = Stopwatch.GetElapsedTime(began).TotalSeconds;
        if (run.State != ImportState.Committed || run.New != hires)
            throw new InvalidOperationException($"Not opened: {run.State} {run.Failure}, {run.New} new, {run.Wrong} wrong.");
        return (whole, read);
    }

    private static string Template(int i) => i % 2 == 0 ? "Deckhand" : "Ticket clerk";
}
