using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Logging;
using Npgsql;

namespace Fid.Acts.Exchange;

/// <summary>Goes on with an import as far as it goes by itself: reads it, checks it, puts it in, or takes it out again. From the state its
/// last transaction left: it can be cut off and done again at any moment. One that cannot be read in time, or was dropped meanwhile, is given up.</summary>
public sealed class RunImport(
    FidDb db,
    NpgsqlDataSource source,
    ImportCheck check,
    CommitImport commit,
    UndoImport undo,
    GiveUpImport giveUp,
    ILogger<RunImport> log
)
{
    private const string TooSlow = "It could not be read within a minute. Split it, or save it as .csv.";
    private static readonly TimeSpan BetweenGlances = TimeSpan.FromMilliseconds(250),
        LongestReading = TimeSpan.FromSeconds(55);

    /// <summary>The kind of job that goes on with an import; its argument is the id.</summary>
    public const string Kind = "import";

    /// <returns>How many steps were done.</returns>
    public async Task<ActResult<int>> DoAsync(RunImportRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        var steps = 0;
        // What was to be put in and was checked against something that has changed since is checked again at once.
        while (await db.ImportRuns.AsNoTracking().SingleOrDefaultAsync(r => r.Id == request.Import, cancellation) is { } run && IsUnderWay(run.State))
        {
            await StepAsync(run, actor.Clock, cancellation);
            db.ChangeTracker.Clear();
            steps++;
        }
        // Dropped while it was read, or waited to be.
        await giveUp.TakeAwayAsync(request.Import);
        return steps;
    }

    private static bool IsUnderWay(ImportState state) => state is ImportState.Reading or ImportState.Checking or ImportState.Committing or ImportState.Undoing;

    private async Task StepAsync(ImportRun run, FirmClock clock, CancellationToken stopping)
    {
        var (id, by) = (run.Id, await Actor.OfAccountAsync(run.ById, "exchange", clock, db, stopping));
        var reads = run.State is ImportState.Reading or ImportState.Checking;
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        if (reads)
            patience.CancelAfter(LongestReading);
        var watch = reads ? WatchAsync(id, patience) : Task.CompletedTask;
        try
        {
            switch (run.State)
            {
                case ImportState.Reading:
                    await check.ReadAsync(run, by.Today, patience.Token);
                    break;
                case ImportState.Checking:
                    await check.CheckAgainAsync(run, by.Today, patience.Token);
                    break;
                case ImportState.Committing:
                    await commit.DoAsync(run, by, stopping);
                    break;
                case ImportState.Undoing:
                    await undo.DoAsync(run, by, stopping);
                    break;
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
            await giveUp.FailAsync(
                id,
                run.State,
                run.State switch
                {
                    ImportState.Committing => ImportState.Ready,
                    ImportState.Undoing => ImportState.Committed,
                    _ => ImportState.Failed,
                },
                "fault"
            );
        }
        finally
        {
            await patience.CancelAsync();
            await watch;
        }
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
                if (await select.ExecuteScalarAsync(reading.Token) as string is nameof(ImportState.Reading) or nameof(ImportState.Checking))
                    continue;
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
}

public sealed record RunImportRequest(Guid Import);
