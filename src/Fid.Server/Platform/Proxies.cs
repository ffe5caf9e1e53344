using System.Net;
using Microsoft.AspNetCore.HttpOverrides;

namespace Fid.Server.Platform;

/// <summary>Believes a proxy in front of Fid what it says of the caller, and nobody else: Fid:Proxies names its addresses or networks,
/// with spaces between.</summary>
internal static class Proxies
{
    private static readonly TimeSpan Remembered = TimeSpan.FromDays(365);

    public static void UseFidProxies(this WebApplication app)
    {
        var options = new ForwardedHeadersOptions { ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto };
        options.KnownProxies.Clear();
        options.KnownIPNetworks.Clear();
        foreach (var one in (app.Configuration["Fid:Proxies"] ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries))
            if (one.Contains('/', StringComparison.Ordinal))
                options.KnownIPNetworks.Add(System.Net.IPNetwork.Parse(one));
            else
                options.KnownProxies.Add(IPAddress.Parse(one));
        // One proxy behind another each adds a line; each is looked up among the known ones.
        options.ForwardLimit = null;
        if (options.KnownProxies.Count + options.KnownIPNetworks.Count > 0)
            app.UseForwardedHeaders(options);
        // Who came by https comes by https from then on (RFC 6797).
        app.Use(
            (http, next) =>
            {
                if (http.Request.IsHttps)
                    http.Response.Headers.StrictTransportSecurity = $"max-age={(long)Remembered.TotalSeconds}";
                return next();
            }
        );
    }
}
