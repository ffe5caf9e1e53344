extern alias standins;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using standins::Fid.Standins.Issuer;

namespace Fid.Testing;

/// <summary>The issuer of OpenID Connect that ships with Fid, at a port of its own.</summary>
public sealed class StandInIssuer : IAsyncDisposable
{
    private readonly WebApplication _app;

    private StandInIssuer(WebApplication app) => _app = app;

    public string Address => _app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();

    public static async Task<StandInIssuer> StartAsync()
    {
        var builder = WebApplication.CreateBuilder();
        builder.Logging.ClearProviders();
        builder.Services.AddIssuer();
        var app = builder.Build();
        app.Urls.Add("http://127.0.0.1:0");
        app.UseAuthentication();
        app.MapIssuer();
        await app.StartAsync();
        return new StandInIssuer(app);
    }

    public async ValueTask DisposeAsync() => await _app.DisposeAsync();
}
