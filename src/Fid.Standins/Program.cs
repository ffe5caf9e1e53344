using Fid.Standins.Recruiting;

// Stands in for the systems around Fid, so that everything can be tried without them.
var builder = WebApplication.CreateBuilder(args);
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<CandidateStore>();
var app = builder.Build();
app.MapRecruiting();
await app.RunAsync();
