using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Data;

/// <summary>Reaching the database, and bringing it to the form this version needs.</summary>
public static class FidDatabase
{
    // Any number would do; every instance must use the same one.
    private const long MigrationLock = 0x0F1D;
    private const int MostPrepared = 200;

    // With what it takes to give up a connection, less than five seconds.
    private const int LongestAnswer = 4;

    /// <summary>For waiting until others have done what only one at a time may do, in seconds. A user rather waits than does it again.</summary>
    public const int LongestTurn = 30;

    /// <summary>For work in the background and for what is large, in seconds: there nobody waits for a page.</summary>
    public const int LongestWork = 600;

    /// <summary>The role the application signs in as: it may do what its work needs, and cannot rewrite the past.</summary>
    public const string ApplicationRole = "fid_app";

    // Said anew after every migration, for the tables that came with it.
    private const string Privileges = $"""
        do $$ begin
          create role {ApplicationRole} nologin;
        exception when duplicate_object then null;
        end $$;
        grant usage on schema public to {ApplicationRole};
        grant select, insert, update, delete on all tables in schema public to {ApplicationRole};
        grant usage, select on all sequences in schema public to {ApplicationRole};
        revoke insert, update, delete on "__EFMigrationsHistory", seals from {ApplicationRole};
        revoke update on stored_files from {ApplicationRole};
        revoke update, delete on changes, record_values, field_versions, rights_versions from {ApplicationRole};
        grant update (known, ended_by) on record_values to {ApplicationRole};
        """;

    /// <summary>The options every FidDb is made with.</summary>
    public static DbContextOptionsBuilder UseFid(this DbContextOptionsBuilder options, NpgsqlDataSource source) =>
        options.UseNpgsql(source, npgsql => npgsql.UseNodaTime()).UseSnakeCaseNamingConvention();

    /// <summary>A context of its own, for where no container gives one.</summary>
    public static FidDb Open(NpgsqlDataSource source)
    {
        var options = new DbContextOptionsBuilder<FidDb>();
        options.UseFid(source);
        return new FidDb(options.Options);
    }

    /// <summary>A pool of connections that knows NodaTime's types.</summary>
    /// <param name="impatient">Whether a database that does not answer is given up within seconds, as for those who wait for a page.</param>
    public static NpgsqlDataSource Source(string connection, bool impatient = false)
    {
        var builder = new NpgsqlDataSourceBuilder(connection);
        if (impatient)
            (builder.ConnectionStringBuilder.CommandTimeout, builder.ConnectionStringBuilder.Timeout, builder.ConnectionStringBuilder.CancellationTimeout) = (
                LongestAnswer,
                LongestAnswer,
                500
            );
        builder.UseNodaTime();
        // Planning takes longer than most of our queries: what is asked again and again is planned once a connection.
        builder.ConnectionStringBuilder.MaxAutoPrepare = MostPrepared;
        builder.ConnectionStringBuilder.AutoPrepareMinUsages = 2;
        return builder.Build();
    }

    /// <summary>Applies the migrations that are missing, as the owner of the database, and grants the application's role what it may.
    /// Those who do it together do it one after the other.</summary>
    public static async Task MigrateAsync(FidDb db, CancellationToken cancellation = default)
    {
        // As long as it takes: what a large firm has stored may be rewritten, or another may be at it.
        db.Database.SetCommandTimeout(0);
        await db.Database.OpenConnectionAsync(cancellation);
        try
        {
            await db.Database.ExecuteSqlAsync($"select pg_advisory_lock({MigrationLock})", cancellation);
            await db.Database.MigrateAsync(cancellation);
            await db.Database.ExecuteSqlRawAsync(Privileges, cancellation);
            await db.Database.ExecuteSqlAsync($"select pg_advisory_unlock({MigrationLock})", cancellation);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }
}
