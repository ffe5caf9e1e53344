using Fid.Standins.Issuer;
using Fid.Standins.Mail;
using Fid.Standins.Recruiting;

// Stands in for the systems around Fid, so that everything can be tried without them.
var builder = WebApplication.CreateBuilder(args);
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<CandidateStore>();
builder.Services.AddSingleton<CaughtMail>();
builder.Services.AddIssuer();
var app = builder.Build();
app.UseAuthentication();
app.MapRecruiting();
app.MapIssuer();
app.MapMail();

// The port on which it takes mail; none where it is to take none.
if (app.Configuration.GetValue<int?>("SmtpPort") is { } port)
    _ = MailEndpoints.ListenAsync(app.Services.GetRequiredService<CaughtMail>(), port, app.Lifetime.ApplicationStopping);
await app.RunAsync();
