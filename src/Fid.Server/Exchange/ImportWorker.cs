using System.Threading.Channels;
using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Server.Exchange;

/// <summary>
/// Goes on with imports in the background, several at once, so that none waits for another's. Whatever instance finds one takes its
/// lock, which ends with the connection: an import whose server died is taken up by the next that looks, from the state its last
/// transaction left. One that cannot be read in time, or was dropped meanwhile, is given up.
/// </summary>
public sealed class ImportWorker(IServiceScopeFactory scopes, NpgsqlDataSource source, FirmClock clock, ILogger<ImportWorker> log) : BackgroundService
{
    private const int MostAtOnce = 4;
    private const string TooSlow = "It could not be read within a minute. Split it, or save it as .csv.";
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(3);
    private static readonly TimeSpan BetweenGlances = TimeSpan.FromMilliseconds(250);
    private static readonly TimeSpan LongestReading = TimeSpan.FromSeconds(55);
    private static readonly Duration BetweenClearings = Duration.FromHours(1);
    private static readonly string[] UnderWay = [nameof(ImportState.Reading), nameof(ImportState.Checking), nameof(ImportState.Committing), nameof(ImportState.Undoing)];

    private readonly Channel<bool> _wake = Channel.CreateBounded<bool>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite });
    private Instant _cleared;

    /// <summary>Says that there is something to do.</summary>
    public void Wake() => _wake.Writer.TryWrite(true);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var working = new List<Task>();
        while (!stoppingToken.IsCancellationRequested)
        {
            working.RemoveAll(w => w.IsCompleted);
            try
            {
                while (working.Count < MostAtOnce && await ClaimAsync(stoppingToken) is { } claim) working.Add(WorkAsync(claim, stoppingToken));
                if (clock.Now - _cleared > BetweenClearings) await ClearAsync(stoppingToken);
                using var pause = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
                pause.CancelAfter(BetweenLooks);
                await Task.WhenAny([_wake.Reader.ReadAsync(pause.Token).AsTask(), .. working]);
                await pause.CancelAsync();
            }
            catch (OperationCanceledException)
            {
                // Time to look again, or to stop.
            }
            catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException)
            {
                log.LogWarning(e, "Imports could not be looked for; it is tried again");
                await Task.Delay(BetweenLooks, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
        await Task.WhenAll(working).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
    }

    private async Task ClearAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        await ImportRetention.ClearAsync(scope.ServiceProvider.GetRequiredService<FidDb>(), clock.Now, cancellation);
        _cleared = clock.Now;
    }

    // Locks are tried one by one: a query that tries them all takes more than it answers with.
    private async Task<Claim?> ClaimAsync(CancellationToken cancellation)
    {
        var guard = await source.OpenConnectionAsync(cancellation);
        try
        {
            var waiting = new List<Guid>();
            await using (var select = new NpgsqlCommand("select id from import_runs where state = any($1) order by at", guard) { Parameters = { new() { Value = UnderWay } } })
            await using (var reader = await select.ExecuteReaderAsync(cancellation))
                while (await reader.ReadAsync(cancellation)) waiting.Add(reader.GetGuid(0));
            foreach (var id in waiting)
            {
                await using var take = new NpgsqlCommand("select pg_try_advisory_lock(hashtextextended($1::text, 7))", guard) { Parameters = { new() { Value = id.ToString() } } };
                if (await take.ExecuteScalarAsync(cancellation) is true) return new Claim(id, guard);
            }
        }
        catch
        {
            await guard.DisposeAsync();
            throw;
        }
        await guard.DisposeAsync();
        return null;
    }

    private async Task WorkAsync(Claim claim, CancellationToken stopping)
    {
        await Task.Yield();
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await WorkAsync(scope.ServiceProvider, claim.Id, stopping);
            // The lock goes with the connection: unlocked here, or by the server when this process is no more.
            await using var unlock = new NpgsqlCommand("select pg_advisory_unlock_all()", claim.Guard);
            await unlock.ExecuteNonQueryAsync(CancellationToken.None);
        }
        catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException or OperationCanceledException)
        {
            if (!stopping.IsCancellationRequested) log.LogWarning(e, "An import could not go on; it is tried again");
            await Task.Delay(BetweenLooks, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
        finally
        {
            await claim.Guard.DisposeAsync();
        }
    }

    private async Task WorkAsync(IServiceProvider services, Guid id, CancellationToken stopping)
    {
        var db = services.GetRequiredService<FidDb>();
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        // Claimed just when another had finished with it: there is nothing left to do.
        if (await db.ImportRuns.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id, stopping) is not { } run || !UnderWay.Contains(run.State.ToString())) return;
        var actor = await Actor.OfAccountAsync(run.ById, "exchange", clock, db, stopping);
        var (today, giveUp) = (actor.Today, services.GetRequiredService<GiveUpImport>());
        var reads = run.State is ImportState.Reading or ImportState.Checking;
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        if (reads) patience.CancelAfter(LongestReading);
        var watch = reads ? WatchAsync(id, patience) : Task.CompletedTask;
        try
        {
            switch (run.State)
            {
                case ImportState.Reading: await services.GetRequiredService<ImportCheck>().ReadAsync(run, today, patience.Token); break;
                case ImportState.Checking: await services.GetRequiredService<ImportCheck>().CheckAgainAsync(run, today, patience.Token); break;
                case ImportState.Committing: await services.GetRequiredService<CommitImport>().DoAsync(run, actor, stopping); break;
                case ImportState.Undoing: await services.GetRequiredService<UndoImport>().DoAsync(run, actor, stopping); break;
            }
        }
        catch (SheetException e)
        {
            await giveUp.FailAsync(id, run.State, ImportState.Failed, e.Message);
        }
        catch (Exception e) when (patience.IsCancellationRequested && !stopping.IsCancellationRequested && reads)
        {
            // A parser that is stopped in the middle may say so in a way of its own.
            log.LogDebug(e, "Import {Run} was stopped", id);
            await giveUp.FailAsync(id, run.State, run.State == ImportState.Reading ? ImportState.Failed : ImportState.Ready, TooSlow);
        }
        catch (Exception e) when (e is not OperationCanceledException and not NpgsqlException { IsTransient: true })
        {
            // Nothing of it is half done: every step is one transaction. What cannot be done is told, and not tried for ever.
            log.LogError(e, "Import {Run} failed", id);
            await giveUp.FailAsync(id, run.State, run.State switch { ImportState.Committing => ImportState.Ready, ImportState.Undoing => ImportState.Committed, _ => ImportState.Failed }, "fault");
        }
        finally
        {
            await patience.CancelAsync();
            await watch;
        }
        if (reads) await giveUp.TakeAwayAsync(id);
    }

    // Stops the reading of an import that somebody dropped.
    private async Task WatchAsync(Guid id, CancellationTokenSource reading)
    {
        using var timer = new PeriodicTimer(BetweenGlances);
        try
        {
            while (await timer.WaitForNextTickAsync(reading.Token))
            {
                await using var connection = await source.OpenConnectionAsync(reading.Token);
                await using var select = new NpgsqlCommand("select state from import_runs where id = $1", connection) { Parameters = { new() { Value = id } } };
                if (await select.ExecuteScalarAsync(reading.Token) as string is nameof(ImportState.Reading) or nameof(ImportState.Checking)) continue;
                await reading.CancelAsync();
            }
        }
        catch (OperationCanceledException)
        {
            // It is read, or given up.
        }
        catch (NpgsqlException e)
        {
            log.LogDebug(e, "Import {Run} could not be watched", id);
        }
    }

    /// <summary>An import that is being gone on with, and the connection that keeps others from it.</summary>
    private sealed record Claim(Guid Id, NpgsqlConnection Guard);
}
