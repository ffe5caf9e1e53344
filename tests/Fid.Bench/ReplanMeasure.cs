using System.Diagnostics;
using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Checklists;
using Fid.Acts.Plans;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime.Text;

namespace Fid.Bench;

/// <summary>Checklists that go on by themselves, among the 600 hires of the large demonstration: one after a tick, and all after a changed holiday.
/// The database is the measure's own.</summary>
internal static class ReplanMeasure
{
    // A server that runs has compiled its code well; with few rounds before, the figure is that of one just started, and a third more.
    private const int Rounds = 200,
        WarmUp = 400;

    public static async Task<string[]> RunAsync(string connection, string on)
    {
        var today = LocalDatePattern.Iso.Parse(on).Value;
        await using var source = FidDatabase.Source(connection);
        await using var services = ActsOf.Database(source, today);
        var one = await OneAsync(services, today);
        var (all, hires) = await AllAsync(services);
        return
        [
            TableRow.Of($"One hire planned anew after a tick, its tasks read", $"{one:0.0} ms", $"under 5 ms"),
            TableRow.Of($"{hires} hires after a changed holiday, in one job", $"{all:0.0} s", $"within 3 s"),
        ];
    }

    private static async Task<double> OneAsync(ServiceProvider services, NodaTime.LocalDate today)
    {
        var times = new List<double>();
        Guid[] hires;
        await using (var scope = services.CreateAsyncScope())
            hires = await scope
                .ServiceProvider.GetRequiredService<FidDb>()
                .Hires.Where(h => h.Closed == null)
                .OrderBy(h => h.Id)
                .Select(h => h.Id)
                .ToArrayAsync();
        for (var i = -WarmUp; i < Rounds; i++)
        {
            await using var scope = services.CreateAsyncScope();
            var (db, id) = (scope.ServiceProvider.GetRequiredService<FidDb>(), hires[(i + WarmUp) % hires.Length]);
            // As in an act, whose transaction holds one connection.
            await db.Database.OpenConnectionAsync();
            var (calendars, stages) = (await CalendarSet.LoadAsync(db, default), await StagePlans.LoadAsync(db, default));
            // The tick; what comes of it is read and planned as a checklist that goes on is.
            await db.Database.ExecuteSqlAsync($"update hire_tasks set note = note where hire_id = {id} and position = 1");
            var began = Stopwatch.GetTimestamp();
            foreach (var hire in await HiresUnderWay.LoadAsync(db, all => all.Where(h => h.Id == id), default))
                HirePlan.Of(hire.Question(today, calendars, stages), SoonestSearch.Never);
            if (i >= 0)
                times.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
        }
        return ArrivalsMeasure.Median(times);
    }

    private static async Task<(double Seconds, int Hires)> AllAsync(ServiceProvider services)
    {
        var times = new List<double>();
        var count = 0;
        for (var i = 0; i < 4; i++)
        {
            await using var scope = services.CreateAsyncScope();
            var (db, clock) = (scope.ServiceProvider.GetRequiredService<FidDb>(), scope.ServiceProvider.GetRequiredService<FirmClock>());
            count = await db.Hires.CountAsync(h => h.Closed == null);
            // Another rest day in all calendars each time: gates and days move.
            await db.Database.ExecuteSqlAsync(
                $$"""
                update list_entries set "values" = jsonb_set("values", array['holidays'], coalesce("values"->'holidays', '[]') || jsonb_build_array(
                  jsonb_build_object('on', (date '2027-03-02' + {{i}})::text, 'days', 1, 'name', 'Measured'))) where list = 'calendars'
                """
            );
            var fid = await Actor.FidAsync("bench", clock, db, default);
            var began = Stopwatch.GetTimestamp();
            if (
                !(await scope.ServiceProvider.GetRequiredService<ReplanChecklists>().DoAsync(new ReplanChecklistsRequest(), fid, default)).IsDone(
                    out _,
                    out var why
                )
            )
                throw new InvalidOperationException(why.Message);
            if (i > 0)
                times.Add(Stopwatch.GetElapsedTime(began).TotalSeconds);
        }
        return (ArrivalsMeasure.Median(times), count);
    }
}
