using Fid.Standins.Issuer;
using Fid.Standins.Recruiting;

// Stands in for the systems around Fid, so that everything can be tried without them.
var builder = WebApplication.CreateBuilder(args);
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<CandidateStore>();
builder.Services.AddIssuer();
var app = builder.Build();
app.UseAuthentication();
app.MapRecruiting();
app.MapIssuer();
await app.RunAsync();
