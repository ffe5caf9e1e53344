using Fid.Data;
using Fid.Demo;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Testing;

/// <summary>
/// A database of a test class's own, holding the demonstration firm: cloned from a template that is made once a run; or once for many runs,
/// which are told its name by FID_TEST_TEMPLATE.
/// </summary>
public sealed class TestDatabase : IAsyncDisposable
{
    /// <summary>The firm's date in all tests: a Monday.</summary>
    public static readonly LocalDate Today = new(2027, 3, 1);

    private static readonly Lazy<Task<string>> Demo = new(() =>
        TemplateAsync(Environment.GetEnvironmentVariable("FID_TEST_TEMPLATE"), source => DemoFirm.LoadAsync(source, Today, DemoFirm.People, keyRing: null))
    );
    private static readonly SemaphoreSlim OneAtATime = new(1);
    private const long RolesLock = 0x401E5;
    private const long TemplateLock = 0x7E4B1A;

    private TestDatabase(string name) => (Name, Connection) = (name, ConnectionTo(name, FidDatabase.ApplicationRole));

    public string Name { get; }

    /// <summary>The connection the application has, whose role may less than the tests' own.</summary>
    public string Connection { get; }

    private static string Server =>
        Environment.GetEnvironmentVariable("FID_TEST_POSTGRES")
        ?? throw new InvalidOperationException("FID_TEST_POSTGRES says where the throw-away PostgreSQL is. Run ./fid test server, which starts one.");

    /// <summary>A copy of the demonstration firm.</summary>
    public static async Task<TestDatabase> CloneAsync()
    {
        var template = await Demo.Value;
        var name = $"fid_test_{Guid.NewGuid():N}";
        // PostgreSQL copies a template only while nobody else does.
        await OneAtATime.WaitAsync();
        try
        {
            await ExecuteAsync($"create database {name} template {template}");
        }
        finally
        {
            OneAtATime.Release();
        }
        return new TestDatabase(name);
    }

    /// <summary>A database with nothing in it.</summary>
    public static async Task<TestDatabase> EmptyAsync()
    {
        var name = $"fid_test_{Guid.NewGuid():N}";
        await ExecuteAsync($"create database {name}");
        await using var source = FidDatabase.Source(ConnectionTo(name) + ";Pooling=false");
        await MigrateAsync(source);
        return new TestDatabase(name);
    }

    public async ValueTask DisposeAsync() => await ExecuteAsync($"drop database {Name} with (force)");

    /// <summary>Runs a statement in this database.</summary>
    public async Task<object?> AskAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(ConnectionTo(Name));
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return await command.ExecuteScalarAsync();
    }

    private static async Task<string> TemplateAsync(string? shared, Func<NpgsqlDataSource, Task> fill)
    {
        // Of several runs that begin together one makes it, and the others wait.
        await using var guard = new NpgsqlConnection(Server + ";Pooling=false");
        await guard.OpenAsync();
        await using (var take = new NpgsqlCommand($"select pg_advisory_lock({TemplateLock})", guard))
            await take.ExecuteNonQueryAsync();
        var (name, making) = (shared ?? "fid_template_demo", "fid_template_making");
        await using var there = new NpgsqlCommand($"select 1 from pg_database where datname = '{name}'", guard);
        if (shared is not null && await there.ExecuteScalarAsync() is not null)
            return name;
        await ExecuteAsync($"drop database if exists {making}");
        await ExecuteAsync($"create database {making}");
        await using (var source = FidDatabase.Source(ConnectionTo(making) + ";Pooling=false"))
        {
            await MigrateAsync(source);
            await fill(source);
        }
        await ExecuteAsync($"drop database if exists {name}");
        await ExecuteAsync($"alter database {making} rename to {name}");
        return name;
    }

    private static async Task MigrateAsync(NpgsqlDataSource source)
    {
        // Roles are the cluster's: whoever else migrates, in this run or another, waits. A lock is a database's, so it is taken in one that all share.
        await using var guard = new NpgsqlConnection(Server + ";Pooling=false");
        await guard.OpenAsync();
        await using (var take = new NpgsqlCommand($"select pg_advisory_lock({RolesLock})", guard))
            await take.ExecuteNonQueryAsync();
        await using var db = FidDatabase.Open(source);
        await FidDatabase.MigrateAsync(db);
        await db.Database.ExecuteSqlRawAsync($"alter role {FidDatabase.ApplicationRole} login password '{FidDatabase.ApplicationRole}'");
    }

    private static string ConnectionTo(string database, string? role = null)
    {
        var connection = new NpgsqlConnectionStringBuilder(Server)
        {
            Database = database,
            MaxPoolSize = 20,
            IncludeErrorDetail = true,
        };
        if (role is not null)
            (connection.Username, connection.Password) = (role, role);
        return connection.ConnectionString;
    }

    private static async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(Server + ";Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
