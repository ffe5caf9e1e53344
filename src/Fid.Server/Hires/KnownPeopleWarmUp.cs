using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
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
            foreach (var role in fields.Roles.Roles.Select(r => HeldRights.Of(fields.Roles, [r.Id])).Where(r => r.May(Actions.Open, Things.Hire)))
                await people.MatcherAsync(db, role.OnAll(fields.Set, role.Reached).Sees, stoppingToken);
        }
        catch (Exception e) when (e is NpgsqlException or InvalidOperationException)
        {
            log.LogWarning(e, "Who is known could not be read ahead; it is read when somebody asks");
        }
    }
}
