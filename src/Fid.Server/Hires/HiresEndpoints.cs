using Fid.Server.Platform;

namespace Fid.Server.Hires;

/// <summary>The routes of a hire.</summary>
internal static class HiresEndpoints
{
    public static void MapHires(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/hires/preview", NewHire.Preview).WhoMay(Access.Coordinates).ProducesProblem(400);
        app.MapPost("/api/hires", NewHire.Open).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(409);
        app.MapPost("/api/hires/many/preview", NewHire.PreviewMany).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly).ProducesProblem(400);
        app.MapPost("/api/hires/many", NewHire.OpenMany).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(409);
        app.MapPost("/api/hires/known", KnownPeople.Find).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly);
        app.MapPut("/api/hires/{id:guid}/outcome", Outcomes.Set).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/hires/{id:guid}/outcome", Outcomes.TakeBack).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        app.MapGet("/api/hires/{id:guid}", Checklist.Show).WhoMay(Access.SeesArrivals).ProducesProblem(404);
        app.MapGet("/api/hires/{id:guid}/person", Checklist.Whose).WhoMay(Access.SeesArrivals).ProducesProblem(404);
        app.MapGet("/api/hires/{id:guid}/start-change", StartChange.Preview).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404);
        app.MapPut("/api/hires/{id:guid}/start", StartChange.Save).WhoMay(Access.Coordinates)
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
        app.MapPut("/api/hires/{id:guid}/tasks/{key}/done", Ticking.Done).WhoMay(Access.SignedIn).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
        app.MapDelete("/api/hires/{id:guid}/tasks/{key}/done", Ticking.NotDone).WhoMay(Access.SignedIn).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
        app.MapGet("/api/hires/{id:guid}/tasks/{key}/files/{file:guid}", Ticking.ShowFile).WhoMay(Access.SignedIn).ProducesProblem(404);
        app.MapPut("/api/hires/{id:guid}/tasks/{key}/skipped", Ticking.Skip).WhoMay(Access.Coordinates).Validated<SkipRequest>()
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
        app.MapDelete("/api/hires/{id:guid}/tasks/{key}/skipped", Ticking.NotSkipped).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
    }
}
