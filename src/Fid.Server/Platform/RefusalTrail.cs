using System.Collections.Concurrent;
using Fid.Acts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Notes in the trail whom an endpoint was refused: once a minute for each of them, so that nobody fills it by asking.</summary>
internal sealed class RefusalTrail(FirmClock clock, ILogger<RefusalTrail> log)
{
    private const int MostKept = 10_000;
    private static readonly NodaTime.Duration Between = NodaTime.Duration.FromMinutes(1);

    private readonly ConcurrentDictionary<(Guid, string), NodaTime.Instant> _noted = new();

    public async Task NoteAsync(HttpContext http)
    {
        if (http.User.Identity?.IsAuthenticated != true || (http.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText is not { } route)
            return;
        var (key, now) = ((http.User.Id(), route), clock.Now);
        if (_noted.TryGetValue(key, out var last) && now - last < Between)
            return;
        if (_noted.Count > MostKept)
            _noted.Clear();
        _noted[key] = now;
        try
        {
            await SecurityTrail.NoteAsync(
                http.RequestServices.GetRequiredService<FidDb>(),
                http.User,
                clock,
                http,
                SecurityTrail.Refused,
                $"{http.Request.Method} {route}",
                http.RequestAborted
            );
        }
        catch (Exception e) when (e is NpgsqlException or DbUpdateException)
        {
            // A refusal stays one, whether it could be written down or not.
            log.LogWarning(e, "A refusal could not be noted");
        }
    }
}
