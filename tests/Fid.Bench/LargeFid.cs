using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Fid.Bench;

/// <summary>A server over the large demonstration.</summary>
internal sealed class LargeFid(string connection, string today) : WebApplicationFactory<Fid.Server.Platform.LiveChanges>
{
    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseContentRoot(AppContext.BaseDirectory);
        builder.UseSetting("ConnectionStrings:Fid", connection);
        builder.UseSetting("Fid:Today", today);
        builder.UseSetting("Serilog:MinimumLevel", "Fatal");
    }
}
