using Npgsql;

namespace Fid.Server.Platform;

/// <summary>A channel on which PostgreSQL tells what happened, through whichever server.</summary>
internal static class PostgresChannel
{
    private static readonly TimeSpan BeforeTryingAgain = TimeSpan.FromSeconds(1);

    /// <summary>Listens until it is stopped, over one connection after the other.</summary>
    /// <param name="begun">Called whenever it listens anew: something may have been missed.</param>
    /// <param name="heard">Called with what was told.</param>
    /// <param name="interrupted">Called with why nothing is heard for a moment.</param>
    public static async Task ListenAsync(
        NpgsqlDataSource source,
        string channel,
        Action begun,
        Action<string> heard,
        Action<string> interrupted,
        CancellationToken stopping
    )
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(stopping);
                connection.Notification += (_, notice) => heard(notice.Payload);
                await using (var listen = new NpgsqlCommand($"listen {channel}", connection))
                    await listen.ExecuteNonQueryAsync(stopping);
                begun();
                while (true)
                    await connection.WaitAsync(stopping);
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or System.Net.Sockets.SocketException or IOException)
            {
                interrupted(e.Message);
                await Task.Delay(BeforeTryingAgain, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }
}
