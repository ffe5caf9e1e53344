using Fid.Data.Work;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace Fid.Acts.Work;

/// <summary>
/// The queue of jobs. Who takes one holds a lock that ends with the connection: a job whose server died is taken up by the next that
/// looks, at once, and needs no clock to agree with another. So a job can be begun twice, never be done by two at a time, and is never lost.
/// </summary>
public sealed class JobQueue(NpgsqlDataSource source, FirmClock clock)
{
    private const int Looked = 50;

    /// <summary>On which PostgreSQL tells that there is something to do.</summary>
    public const string Channel = "fid_jobs";

    /// <summary>Sees to it that there is a job of every kind that recurs, and that each is done now: nobody knows how long no server ran.</summary>
    public async Task ArmAsync(IEnumerable<JobKind> kinds, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        foreach (var kind in kinds.Where(k => k.Every is not null))
            await ExecuteAsync(
                connection,
                "insert into jobs (id, kind, recurs, state, due, made_at, tries) values ($1, $2, true, 'Waiting', $3, $3, 0) on conflict "
                    + "(kind) where recurs do update set due = excluded.due where jobs.state = 'Waiting' and jobs.due > excluded.due",
                cancellation,
                Guid.CreateVersion7(),
                kind.Name,
                clock.Now
            );
    }

    /// <summary>Takes the job that has been due longest; null where there is none, or others have them all.</summary>
    /// <param name="kinds">Names of the kinds to choose from.</param>
    public async Task<TakenJob?> TakeAsync(string[] kinds, CancellationToken cancellation)
    {
        var guard = await source.OpenConnectionAsync(cancellation);
        try
        {
            var due = new List<(Guid Id, string Key)>();
            await using (
                var select = Command(
                    guard,
                    $"""
                    select id, kind || ':' || coalesce(argument, '') from jobs
                    where kind = any($1) and ((state = 'Waiting' and due <= $2) or state = 'Running') order by due, made_at limit {Looked}
                    """,
                    kinds,
                    clock.Now
                )
            )
            await using (var reader = await select.ExecuteReaderAsync(cancellation))
                while (await reader.ReadAsync(cancellation))
                    due.Add((reader.GetGuid(0), reader.GetString(1)));
            foreach (var (id, key) in due)
            {
                if (await Command(guard, "select pg_try_advisory_lock(hashtextextended($1, 7))", key).ExecuteScalarAsync(cancellation) is not true)
                    continue;
                // Between the look and the lock another may have done it.
                await using (
                    var take = Command(
                        guard,
                        """
                        update jobs set state = 'Running', tries = tries + 1, started_at = $2, done = null, "of" = null
                        where id = $1 and ((state = 'Waiting' and due <= $2) or state = 'Running')
                        returning kind, argument, recurs, tries
                        """,
                        id,
                        clock.Now
                    )
                )
                await using (var reader = await take.ExecuteReaderAsync(cancellation))
                    if (await reader.ReadAsync(cancellation))
                        return new TakenJob(
                            id,
                            reader.GetString(0),
                            reader.IsDBNull(1) ? null : reader.GetString(1),
                            reader.GetBoolean(2),
                            reader.GetInt32(3),
                            clock.Now,
                            guard
                        );
                await Command(guard, "select pg_advisory_unlock(hashtextextended($1, 7))", key).ExecuteNonQueryAsync(cancellation);
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

    /// <summary>Keeps how far a job has come, for those who look.</summary>
    public static Task ProgressAsync(TakenJob job, int done, int of) =>
        ExecuteAsync(job.Guard, "update jobs set done = $2, \"of\" = $3 where id = $1", default, job.Id, done, of);

    /// <summary>Keeps that a job was done. One that recurs waits for its next time.</summary>
    public async Task DoneAsync(TakenJob job, JobKind kind, int handled)
    {
        if (handled > 0 || (!job.Recurs && kind.KeepsIdle))
            await KeepAsync(job, handled, null);
        if (kind.Every is { } every)
            await ExecuteAsync(
                job.Guard,
                "update jobs set state = 'Waiting', due = $2, tries = 0, trouble = null where id = $1",
                default,
                job.Id,
                clock.Now + every
            );
        else
            await ExecuteAsync(job.Guard, "delete from jobs where id = $1", default, job.Id);
        await UnlockAsync(job);
    }

    /// <summary>Keeps that a job could not be done: it is tried again after a pause, or, after many tries, when somebody asks for it.</summary>
    public async Task FailedAsync(TakenJob job, JobKind kind, string trouble)
    {
        var said = trouble.Length <= Job.LongestTrouble ? trouble : trouble[..Job.LongestTrouble];
        await KeepAsync(job, 0, said);
        var state = kind.Every is null && job.Tries >= kind.Tries ? JobState.Failed : JobState.Waiting;
        await ExecuteAsync(
            job.Guard,
            "update jobs set state = $2, due = $3, trouble = $4 where id = $1",
            default,
            job.Id,
            state.ToString(),
            clock.Now + JobKind.PauseAfter(job.Tries),
            said
        );
        await UnlockAsync(job);
    }

    private Task KeepAsync(TakenJob job, int handled, string? trouble) =>
        ExecuteAsync(
            job.Guard,
            "insert into job_runs (id, job_id, kind, argument, started_at, ended_at, handled, trouble) values ($1, $2, $3, $4, $5, $6, $7, $8)",
            default,
            Guid.CreateVersion7(),
            job.Id,
            job.Kind,
            (object?)job.Argument ?? DBNull.Value,
            job.StartedAt,
            clock.Now,
            handled,
            (object?)trouble ?? DBNull.Value
        );

    private static Task UnlockAsync(TakenJob job) => ExecuteAsync(job.Guard, "select pg_advisory_unlock_all()", default);

    private static async Task ExecuteAsync(NpgsqlConnection connection, string sql, CancellationToken cancellation, params object[] values)
    {
        await using var command = Command(connection, sql, values);
        await command.ExecuteNonQueryAsync(cancellation);
    }

    private static NpgsqlCommand Command(NpgsqlConnection connection, string sql, params object[] values)
    {
        var command = new NpgsqlCommand(sql, connection);
        foreach (var value in values)
            command.Parameters.Add(
                value is DBNull ? new NpgsqlParameter { Value = value, NpgsqlDbType = NpgsqlDbType.Text } : new NpgsqlParameter { Value = value }
            );
        return command;
    }
}

/// <summary>A job that is being done, and the connection that keeps others from it.</summary>
/// <param name="Tries">How often it was tried, with this time.</param>
public sealed record TakenJob(Guid Id, string Kind, string? Argument, bool Recurs, int Tries, Instant StartedAt, NpgsqlConnection Guard) : IAsyncDisposable
{
    public ValueTask DisposeAsync() => Guard.DisposeAsync();
}
