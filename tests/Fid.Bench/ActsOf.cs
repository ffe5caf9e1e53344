using Fid.Acts;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;

namespace Fid.Bench;

/// <summary>The acts on a database, without a server.</summary>
internal static class ActsOf
{
    /// <summary>Everything an act needs; sealed with keys of the measure's own.</summary>
    public static ServiceProvider Database(NpgsqlDataSource source, LocalDate today)
    {
        var services = new ServiceCollection();
        services
            .AddSingleton(source)
            .AddSingleton(new FirmClock(SystemClock.Instance, today))
            .AddSingleton<IDataProtectionProvider>(new EphemeralDataProtectionProvider());
        services.AddDbContext<FidDb>(options => options.UseFid(source));
        return services.AddFidActs().BuildServiceProvider();
    }

    /// <summary>A coordinator of the firm.</summary>
    public static async Task<Actor> CoordinatorAsync(IServiceProvider services)
    {
        var (db, clock) = (services.GetRequiredService<FidDb>(), services.GetRequiredService<FirmClock>());
        var orla = await db
            .UserRoles.Join(db.Roles, u => u.RoleId, r => r.Id, (u, r) => new { u.UserId, r.Name })
            .Where(u => u.Name == Roles.Coordinator)
            .Select(u => u.UserId)
            .FirstAsync();
        return await Actor.OfAccountAsync(orla, "exchange", clock, db, default);
    }
}
