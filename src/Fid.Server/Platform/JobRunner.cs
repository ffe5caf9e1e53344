using Fid.Acts;
using Fid.Acts.Work;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Does the jobs of one lane, several at a time, as Fid itself. Looks when PostgreSQL tells of a new one, and now and then.</summary>
internal sealed class JobRunner(
    JobLane lane,
    IEnumerable<JobKind> all,
    IServiceScopeFactory scopes,
    JobQueue queue,
    JobAlarm alarm,
    FirmClock clock,
    ILogger<JobRunner> log
) : BackgroundService
{
    private const int MostAtOnce = 4;
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(3);

    private readonly Dictionary<string, JobKind> _kinds = all.Where(k => k.Lane == lane).ToDictionary(k => k.Name, StringComparer.Ordinal);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var (names, working, isArmed) = (_kinds.Keys.ToArray(), new List<Task>(), false);
        while (!stoppingToken.IsCancellationRequested)
        {
            working.RemoveAll(w => w.IsCompleted);
            var bell = alarm.Next;
            try
            {
                if (!isArmed)
                    await queue.ArmAsync(_kinds.Values, stoppingToken);
                isArmed = true;
                while (working.Count < MostAtOnce && await queue.TakeAsync(names, stoppingToken) is { } job)
                    working.Add(WorkAsync(job, stoppingToken));
                // Until there is more to do, somebody is free again, or it is time to look for what came due or was left by a server that died.
                await Task.WhenAny([bell, Task.Delay(BetweenLooks, stoppingToken), .. working]);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                log.LogWarning(e, "Jobs could not be looked for; it is tried again");
                await Task.Delay(BetweenLooks, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
            catch (Exception e)
            {
                log.LogDebug(e, "The server stops");
                break;
            }
        }
        await Task.WhenAll(working).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
    }

    private async Task WorkAsync(TakenJob job, CancellationToken stopping)
    {
        await Task.Yield();
        await using (job)
        {
            var kind = _kinds[job.Kind];
            try
            {
                await queue.DoneAsync(job, kind, await DoAsync(job, kind, stopping));
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                // The next server goes on with it.
            }
            catch (Exception e)
            {
                log.LogWarning(e, "Job {Kind} {Argument} could not be done", job.Kind, job.Argument);
                await FailAsync(job, kind, e);
            }
        }
    }

    private async Task<int> DoAsync(TakenJob job, JobKind kind, CancellationToken stopping)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        // Before the first run there is nothing to work for.
        if (!await db.Firms.AnyAsync(stopping))
            return 0;
        scope.ServiceProvider.GetRequiredService<JobProgress>().Heard = (done, of) => JobQueue.ProgressAsync(job, done, of);
        return await kind.DoAsync(scope.ServiceProvider, job.Argument, await Actor.FidAsync(kind.Name, clock, db, stopping), stopping);
    }

    private async Task FailAsync(TakenJob job, JobKind kind, Exception e)
    {
        try
        {
            await queue.FailedAsync(job, kind, e.InnerException?.Message ?? e.Message);
        }
        catch (Exception lost) when (lost is NpgsqlException or InvalidOperationException)
        {
            // The connection went with it, and with the connection the lock: whoever looks next takes the job.
            log.LogWarning(lost, "What became of job {Kind} could not be kept", job.Kind);
        }
    }
}
