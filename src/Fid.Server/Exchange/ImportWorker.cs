using System.Threading.Channels;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Server.Exchange;

/// <summary>
/// Goes on with imports in the background, one after the other. Whatever instance finds one takes its lock, which ends with the
/// connection: an import whose server died is taken up by the next that looks, from the state its last transaction left.
/// </summary>
public sealed class ImportWorker(IServiceScopeFactory scopes, NpgsqlDataSource source, FirmClock clock, ILogger<ImportWorker> log) : BackgroundService
{
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(3);
    private static readonly string[] UnderWay = [nameof(ImportState.Reading), nameof(ImportState.Checking), nameof(ImportState.Committing), nameof(ImportState.Undoing)];

    private readonly Channel<bool> _wake = Channel.CreateBounded<bool>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite });

    /// <summary>Says that there is something to do.</summary>
    public void Wake() => _wake.Writer.TryWrite(true);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                while (await TakeOneAsync(stoppingToken))
                {
                }
                using var pause = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
                pause.CancelAfter(BetweenLooks);
                await _wake.Reader.ReadAsync(pause.Token);
            }
            catch (OperationCanceledException)
            {
                // Time to look again, or to stop.
            }
            catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException)
            {
                log.LogWarning(e, "An import could not go on; it is tried again");
                await Task.Delay(BetweenLooks, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private async Task<bool> TakeOneAsync(CancellationToken cancellation)
    {
        await using var guard = await source.OpenConnectionAsync(cancellation);
        await using var select = new NpgsqlCommand("select id from import_runs where state = any($1) and pg_try_advisory_lock(hashtextextended(id::text, 7)) order by at limit 1", guard)
        {
            Parameters = { new() { Value = UnderWay } },
        };
        // The lock goes with the connection: unlocked here, or by the server when this process is no more.
        if (await select.ExecuteScalarAsync(cancellation) is not Guid id) return false;
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await WorkAsync(scope.ServiceProvider, id, cancellation);
        }
        finally
        {
            await using var unlock = new NpgsqlCommand("select pg_advisory_unlock_all()", guard);
            await unlock.ExecuteNonQueryAsync(CancellationToken.None);
        }
        return true;
    }

    private async Task WorkAsync(IServiceProvider services, Guid id, CancellationToken cancellation)
    {
        var db = services.GetRequiredService<FidDb>();
        var run = await db.ImportRuns.AsNoTracking().SingleAsync(r => r.Id == id, cancellation);
        var author = new Author(run.ById, run.ByName, clock.Now, "exchange");
        var today = await clock.TodayAsync(db, cancellation);
        try
        {
            switch (run.State)
            {
                case ImportState.Reading: await services.GetRequiredService<ImportCheck>().ReadAsync(run, today, cancellation); break;
                case ImportState.Checking: await services.GetRequiredService<ImportCheck>().CheckAgainAsync(run, today, cancellation); break;
                case ImportState.Committing: await services.GetRequiredService<ImportCommit>().CommitAsync(run, author, today, cancellation); break;
                case ImportState.Undoing: await services.GetRequiredService<ImportCommit>().UndoAsync(run, author, today, cancellation); break;
            }
        }
        catch (SheetException e)
        {
            await FailAsync(db, id, ImportState.Failed, e.Message);
        }
        catch (Exception e) when (e is not OperationCanceledException and not NpgsqlException { IsTransient: true })
        {
            // Nothing of it is half done: every step is one transaction. What cannot be done is told, and not tried for ever.
            log.LogError(e, "Import {Run} failed", id);
            await FailAsync(db, id, run.State switch { ImportState.Committing => ImportState.Ready, ImportState.Undoing => ImportState.Committed, _ => ImportState.Failed }, "fault");
        }
    }

    private static async Task FailAsync(FidDb db, Guid id, ImportState state, string why)
    {
        db.ChangeTracker.Clear();
        await db.ImportRuns.Where(r => r.Id == id).ExecuteUpdateAsync(s => s.SetProperty(r => r.State, state).SetProperty(r => r.Failure, why), CancellationToken.None);
    }
}
