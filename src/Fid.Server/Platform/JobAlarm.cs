using Fid.Acts.Work;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Hears from PostgreSQL that a job was put into the queue, by whichever server, and wakes those who do them here.</summary>
internal sealed class JobAlarm(NpgsqlDataSource source, ILogger<JobAlarm> log) : BackgroundService
{
    private static readonly TimeSpan BeforeTryingAgain = TimeSpan.FromSeconds(1);

    private volatile TaskCompletionSource _next = New();

    /// <summary>Ends when something is put into the queue from now on.</summary>
    public Task Next => _next.Task;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(stoppingToken);
                connection.Notification += (_, _) => Ring();
                await using (var listen = new NpgsqlCommand($"listen {JobQueue.Channel}", connection))
                    await listen.ExecuteNonQueryAsync(stoppingToken);
                Ring();
                while (true)
                    await connection.WaitAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or System.Net.Sockets.SocketException or IOException)
            {
                log.LogWarning("Nothing is heard of new jobs: {Reason}", e.Message);
                await Task.Delay(BeforeTryingAgain, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private void Ring() => Interlocked.Exchange(ref _next, New()).TrySetResult();

    private static TaskCompletionSource New() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
