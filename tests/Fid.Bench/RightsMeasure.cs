using System.Diagnostics;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime.Text;

namespace Fid.Bench;

/// <summary>What rights take: to be loaded, to be asked, and in a list of which somebody sees a few.</summary>
internal static class RightsMeasure
{
    private const int Rounds = 200;
    private const int Checks = 1_000_000;
    private const int Page = 50;

    // So long that what is measured runs as in a server that has been up for a while, compiled for speed.
    private static readonly TimeSpan WarmUp = TimeSpan.FromSeconds(8);

    /// <param name="connection">The database of 50,000 people.</param>
    public static async Task<IReadOnlyList<string>> RunAsync(string connection, string today)
    {
        await using var source = FidDatabase.Source(connection);
        await using var services = ActsOf.Database(source, LocalDatePattern.Iso.Parse(today).Value);
        await using var scope = services.CreateAsyncScope();
        var (db, clock) = (scope.ServiceProvider.GetRequiredService<FidDb>(), scope.ServiceProvider.GetRequiredService<FirmClock>());
        var day = await clock.TodayAsync(db, default);
        var account = await db.RoleGrants.Where(g => g.Role == ShippedRoles.Manager).Select(g => g.AccountId).FirstAsync();
        // The demonstration has a few managers of thousands: for as long as it is measured, somebody has five.
        await using var transaction = await db.Database.BeginTransactionAsync();
        var managing = db.CurrentRecords.Where(r => r.ManagerId != null).Select(r => r.ManagerId!.Value);
        var six = await db
            .CurrentRecords.Where(r => !managing.Contains(r.EmploymentId))
            .OrderByDescending(r => r.EmploymentId)
            .Select(r => r.EmploymentId)
            .Take(6)
            .ToListAsync();
        var manager = six[0];
        await db
            .CurrentRecords.Where(r => six.Contains(r.EmploymentId) && r.EmploymentId != manager)
            .ExecuteUpdateAsync(s => s.SetProperty(r => r.ManagerId, manager));
        var holder = (await AccountHolder.FindAsync(db, account, day, default))!;
        Actor Manager() => Actor.Of(holder with { Employments = [manager] }, account, null, null, clock, day);

        var loading = await MedianAsync(async () =>
        {
            await AccountHolder.FindAsync(db, account, day, default);
            await ActorReach.OfAsync(Manager(), db, default);
        });
        // What a statement takes that does nothing: by it the figure can be told from that of another machine.
        var bare = await MedianAsync(() => db.Database.ExecuteSqlAsync($"select 1"));
        var fields = await new LiveFieldsLoader(db).LiveAsync();
        var reader = await Reader.OfAsync(Manager(), db, fields, default);
        var record = await db.CurrentRecords.AsNoTracking().FirstAsync(r => r.ManagerId == manager);
        var sees = 0;
        var time = Stopwatch.GetTimestamp();
        for (var i = 0; i < Checks; i++)
            if (reader.On(record).Sees("pay_rate"))
                sees++;
        var check = Stopwatch.GetElapsedTime(time).TotalNanoseconds / Checks;
        // One after the other in turn, so that both meet the machine as it is.
        var (guarded, unguarded) = (new List<double>(), new List<double>());
        var warm = Stopwatch.GetTimestamp();
        while (guarded.Count < Rounds)
        {
            var (own, all) = (await TimeAsync(() => ListAsync(reader.Readable(db.CurrentRecords))), await TimeAsync(() => ListAsync(db.CurrentRecords)));
            if (Stopwatch.GetElapsedTime(warm) < WarmUp)
                continue;
            guarded.Add(own);
            unguarded.Add(all);
        }
        var (few, whole) = (ArrivalsMeasure.Median(guarded), ArrivalsMeasure.Median(unguarded));
        return
        [
            TableRow.Of(
                $"Whose an account is and what they may, loaded among 50,000 people",
                $"{loading:0.00} ms; a statement that does nothing {bare:0.00} ms",
                $"under 2 ms"
            ),
            TableRow.Of(
                $"Whether a field of {(sees == Checks ? "somebody’s" : "nobody’s")} record may be seen, once rights are loaded",
                $"{check:0} ns",
                $"under 1 µs"
            ),
            TableRow.Of(
                $"A list of 50 among 50,000 people, for a manager of five and for whoever sees all",
                $"{few:0.00} ms; {whole:0.00} ms; ratio {few / whole:0.00}",
                $"ratio under 1.3"
            ),
        ];
    }

    private static Task<List<Data.People.CurrentRecord>> ListAsync(IQueryable<Data.People.CurrentRecord> records) =>
        records.AsNoTracking().OrderBy(r => r.FamilyName).ThenBy(r => r.GivenName).ThenBy(r => r.EmploymentId).Take(Page).ToListAsync();

    private static async Task<double> TimeAsync(Func<Task> work)
    {
        var time = Stopwatch.GetTimestamp();
        await work();
        return Stopwatch.GetElapsedTime(time).TotalMilliseconds;
    }

    private static async Task<double> MedianAsync(Func<Task> work)
    {
        var times = new List<double>();
        var warm = Stopwatch.GetTimestamp();
        while (times.Count < Rounds)
        {
            var took = await TimeAsync(work);
            if (Stopwatch.GetElapsedTime(warm) >= WarmUp)
                times.Add(took);
        }
        return ArrivalsMeasure.Median(times);
    }
}
