using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Fid.Server.Tests;

/// <summary>A server instance on a real port, over a database it may share with others.</summary>
public sealed class FidInstance : WebApplicationFactory<Program>
{
    private readonly string _connection;
    private readonly string? _webRoot;
    private readonly NodaTime.LocalDate _today;
    private readonly string? _keyRing;

    /// <param name="connection">Where its database is.</param>
    /// <param name="webRoot">The built front end, where pages are wanted.</param>
    /// <param name="today">The firm's date; that of the demonstration otherwise.</param>
    /// <param name="keyRing">The certificate of the key ring; without one the keys are not encrypted.</param>
    public FidInstance(string connection, string? webRoot = null, NodaTime.LocalDate? today = null, string? keyRing = null)
    {
        (_connection, _webRoot, _today, _keyRing) = (connection, webRoot, today ?? TestDatabase.Today, keyRing);
        UseKestrel(0);
        StartServer();
    }

    public Uri Address => new(Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First().Replace("[::]", "127.0.0.1", StringComparison.Ordinal));

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("ConnectionStrings:Fid", _connection);
        builder.UseSetting("Fid:Today", _today.ToString("uuuu-MM-dd", null));
        builder.UseSetting("Serilog:MinimumLevel", "Fatal");
        // Nobody waits for a feed that is tried again; and nothing is pulled that a test did not ask for.
        builder.UseSetting("Fid:Feed:Retries", "2");
        builder.UseSetting("Fid:Feed:Pause", "00:00:00.010");
        builder.UseSetting("Fid:Feed:Answer", "00:00:01");
        builder.UseSetting("Fid:Feed:Between", "1.00:00:00");
        if (_keyRing is not null) builder.UseSetting("Fid:KeyRing", _keyRing);
        if (_webRoot is not null) builder.UseWebRoot(_webRoot);
    }
}
