using System.Globalization;
using Fid.Server;
using Fid.Server.Admin;
using Serilog;

if (await OwnerVerbs.RunAsync(args, Environment.GetEnvironmentVariable("ConnectionStrings__Fid")) is { } code)
    return code;

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog(
    (context, log) =>
        log
            .ReadFrom.Configuration(context.Configuration)
            .WriteTo.Console(
                outputTemplate: "{Timestamp:yyyy-MM-ddTHH:mm:ss.fffzzz} {Level:u3} {TraceId} {Message:lj}{NewLine}{Exception}",
                formatProvider: CultureInfo.InvariantCulture
            )
);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = 1_000_000);
builder.Services.AddFid(builder.Configuration);

var app = builder.Build();
app.UseFid();

// The OpenAPI document is made at build time by running this program without a database.
if (!FidServer.IsMakingDocument)
    await FidServer.PrepareDatabaseAsync(app.Services);
await app.RunAsync();
return 0;
