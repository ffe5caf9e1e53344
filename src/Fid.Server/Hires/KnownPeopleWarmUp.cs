using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Server.Hires;

/// <summary>Reads who is known when the server starts: at large firms whoever asked first would wait for seconds.</summary>
public sealed class KnownPeopleWarmUp(IServiceScopeFactory scopes, PeopleIndex people, ILogger<KnownPeopleWarmUp> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<FidDb>();
            db.Database.SetCommandTimeout(FidDatabase.LongestWork);
            var fields = await new LiveFieldsLoader(db).LiveAsync(stoppingToken);
            // Those who may open hires; mostly they see the same fields, and the second finds it read.
            foreach (var role in Access.RolesOf[Access.Coordinates])
                await people.MatcherAsync(db, field => ShownRecord.Sees(fields, [role], [field]), stoppingToken);
        }
        catch (Exception e) when (e is NpgsqlException or InvalidOperationException)
        {
            log.LogWarning(e, "Who is known could not be read ahead; it is read when somebody asks");
        }
    }
}
