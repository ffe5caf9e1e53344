using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Data;

/// <summary>Reaching the database, and bringing it to the form this version needs.</summary>
public static class FidDatabase
{
    // Any number would do; every instance must use the same one.
    private const long MigrationLock = 0x0F1D;

    /// <summary>The options every FidDb is made with.</summary>
    public static DbContextOptionsBuilder UseFid(this DbContextOptionsBuilder options, NpgsqlDataSource source) =>
        options.UseNpgsql(source, npgsql => npgsql.UseNodaTime()).UseSnakeCaseNamingConvention();

    /// <summary>A pool of connections that knows NodaTime's types.</summary>
    public static NpgsqlDataSource Source(string connection)
    {
        var builder = new NpgsqlDataSourceBuilder(connection);
        builder.UseNodaTime();
        return builder.Build();
    }

    /// <summary>Applies the migrations that are missing. Instances that start together do it one after the other.</summary>
    public static async Task MigrateAsync(FidDb db, CancellationToken cancellation = default)
    {
        await db.Database.OpenConnectionAsync(cancellation);
        try
        {
            await db.Database.ExecuteSqlAsync($"select pg_advisory_lock({MigrationLock})", cancellation);
            await db.Database.MigrateAsync(cancellation);
            await db.Database.ExecuteSqlAsync($"select pg_advisory_unlock({MigrationLock})", cancellation);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }
}
