using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Fid.Testing;

/// <summary>A server instance on a real port, over a database it may share with others.</summary>
public sealed class FidInstance : WebApplicationFactory<Program>
{
    private readonly string _connection;
    private readonly string? _webRoot;
    private readonly NodaTime.LocalDate _today;
    private readonly string? _keyRing;
    private readonly Dictionary<string, string>? _settings;

    /// <param name="connection">Where its database is.</param>
    /// <param name="webRoot">The built front end, where pages are wanted.</param>
    /// <param name="today">The firm's date; that of the demonstration otherwise.</param>
    /// <param name="keyRing">The certificate of the key ring; without one the keys are not encrypted.</param>
    /// <param name="settings">Settings of its own.</param>
    public FidInstance(
        string connection,
        string? webRoot = null,
        NodaTime.LocalDate? today = null,
        string? keyRing = null,
        Dictionary<string, string>? settings = null
    )
    {
        (_connection, _webRoot, _today, _keyRing, _settings) = (connection, webRoot, today ?? TestDatabase.Today, keyRing, settings);
        UseKestrel(0);
        StartServer();
    }

    public Uri Address =>
        new(
            Services
                .GetRequiredService<IServer>()
                .Features.Get<IServerAddressesFeature>()!
                .Addresses.First()
                .Replace("[::]", "127.0.0.1", StringComparison.Ordinal)
        );

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("ConnectionStrings:Fid", _connection);
        builder.UseSetting("Fid:Today", _today.ToString("uuuu-MM-dd", null));
        builder.UseSetting("Serilog:MinimumLevel", "Error");
        // Nobody waits for a feed that is tried again; and nothing is pulled that a test did not ask for.
        builder.UseSetting("Fid:Feed:Retries", "2");
        builder.UseSetting("Fid:Feed:Pause", "00:00:00.010");
        builder.UseSetting("Fid:Feed:Answer", "00:00:01");
        builder.UseSetting("Fid:Feed:Between", "1.00:00:00");
        // Tests ask more quickly than any typist; that there is a limit is a test of its own.
        builder.UseSetting("Fid:CostlyAtOnce", "1000000");
        foreach (var (name, value) in _settings ?? [])
            builder.UseSetting(name, value);
        if (_keyRing is not null)
            builder.UseSetting("Fid:KeyRing", _keyRing);
        if (_webRoot is not null)
            builder.UseWebRoot(_webRoot);
    }
}
