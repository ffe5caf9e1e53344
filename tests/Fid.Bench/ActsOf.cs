using Fid.Acts;
using Fid.Core.Rights;
using Fid.Data;
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
        var orla = await db.RoleGrants.Where(g => g.Role == ShippedRoles.Coordinator).Select(g => g.AccountId).FirstAsync();
        return await Actor.OfAccountAsync(orla, "exchange", clock, db, default);
    }
}
