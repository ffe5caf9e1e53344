using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Whether this server lives, and whether it can do anything for anybody.</summary>
internal static class Health
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    public static void MapHealth(this IEndpointRouteBuilder app)
    {
        // Answered before anything else is looked at: whose session it is would be asked of the database.
        app.MapGet("/health/live", () => TypedResults.Text("live")).ShortCircuit().ExcludeFromDescription();
        app.MapGet("/health/ready", Ready).ShortCircuit().ExcludeFromDescription();
    }

    // A database that hangs takes connections and never answers, so that it is asked for something, and not for long.
    private static async Task<IResult> Ready(NpgsqlDataSource source, HttpContext http)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted);
        patience.CancelAfter(Patience);
        try
        {
            var asked = AskAsync(source, patience.Token);
            // Cancelling asks the database, too: one that hangs is left waiting.
            if (await Task.WhenAny(asked, Task.Delay(Patience, http.RequestAborted)) == asked)
            {
                await asked;
                return TypedResults.Text("ready");
            }
            _ = asked.ContinueWith(t => t.Exception, CancellationToken.None, TaskContinuationOptions.OnlyOnFaulted, TaskScheduler.Default);
        }
        catch (Exception e) when (e is NpgsqlException or OperationCanceledException or TimeoutException or System.Net.Sockets.SocketException)
        {
            // Not ready, whatever the reason.
        }
        return TypedResults.Text("not ready", statusCode: StatusCodes.Status503ServiceUnavailable);
    }

    private static async Task AskAsync(NpgsqlDataSource source, CancellationToken cancellation)
    {
        await using var command = source.CreateCommand("select 1");
        await command.ExecuteScalarAsync(cancellation);
    }
}
