using Fid.Acts.Work;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Hears from PostgreSQL that a job was put into the queue, by whichever server, and wakes those who do them here.</summary>
internal sealed class JobAlarm(NpgsqlDataSource source, ILogger<JobAlarm> log) : BackgroundService
{
    private volatile TaskCompletionSource _next = New();

    /// <summary>Ends when something is put into the queue from now on.</summary>
    public Task Next => _next.Task;

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        PostgresChannel.ListenAsync(
            source,
            JobQueue.Channel,
            Ring,
            _ => Ring(),
            reason => log.LogWarning("Nothing is heard of new jobs: {Reason}", reason),
            stoppingToken
        );

    private void Ring() => Interlocked.Exchange(ref _next, New()).TrySetResult();

    private static TaskCompletionSource New() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
