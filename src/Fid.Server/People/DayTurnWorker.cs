using Fid.Acts;
using Fid.Acts.People;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Server.People;

/// <summary>Turns the day, where the firm is: also at the start, for the days on which no server ran.</summary>
internal sealed class DayTurnWorker(IServiceScopeFactory scopes, FirmClock clock, ILogger<DayTurnWorker> log) : BackgroundService
{
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(30);
    private static readonly NodaTime.Duration BetweenClearings = NodaTime.Duration.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        LocalDate? turned = null;
        var cleared = Instant.MinValue;
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<FidDb>();
                db.Database.SetCommandTimeout(FidDatabase.LongestWork);
                var today = await clock.TodayAsync(db, stoppingToken);
                var turn = new DayTurn(db, scope.ServiceProvider.GetRequiredService<RecordWriter>());
                if (today != turned)
                {
                    await turn.ToAsync(today, clock.Now, stoppingToken);
                    turned = today;
                }
                if (clock.Now - BetweenClearings > cleared)
                {
                    await turn.DropUnnamedAsync(clock.Now, stoppingToken);
                    await DoneOnce.ForgetAsync(db, clock.Now, stoppingToken);
                    cleared = clock.Now;
                }
            }
            catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException)
            {
                log.LogWarning(e, "The day could not be turned; it is tried again");
            }
            await Task.Delay(BetweenLooks, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }
}
