using Fid.Core.Rights;
using Fid.Server.Platform;

namespace Fid.Server.Hires;

/// <summary>The routes of a hire.</summary>
internal static class HiresEndpoints
{
    public static void MapHires(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/hires/preview", NewHireEndpoints.Preview).WhoMay(Actions.Open, Things.Hire).OnlyReads().ProducesProblem(400);
        app.MapPost("/api/hires", NewHireEndpoints.Open).WhoMay(Actions.Open, Things.Hire).ProducesProblem(400).ProducesProblem(409);
        app.MapPost("/api/hires/many/preview", NewHireEndpoints.PreviewMany)
            .WhoMay(Actions.Open, Things.Hire)
            .OnlyReads()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400);
        app.MapPost("/api/hires/many", NewHireEndpoints.OpenMany).WhoMay(Actions.Open, Things.Hire).ProducesProblem(400).ProducesProblem(409);
        app.MapChecklists();
        app.MapPost("/api/hires/known", KnownPeople.Find).WhoMay(Actions.Open, Things.Hire).OnlyReads().RequireRateLimiting(RateLimits.Costly);
        app.MapPut("/api/hires/{id:guid}/outcome", OutcomeEndpoints.Close)
            .WhoMay(Actions.Edit, Things.Hire)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409);
        app.MapDelete("/api/hires/{id:guid}/outcome", OutcomeEndpoints.Reopen).WhoMay(Actions.Edit, Things.Hire).ProducesProblem(404).ProducesProblem(409);
        app.MapGet("/api/hires/{id:guid}", Checklist.Show).WhoMay(Actions.See, Things.Hire).ProducesProblem(404);
        app.MapGet("/api/hires/{id:guid}/person", Checklist.Whose).WhoMay(Actions.See, Things.Hire).ProducesProblem(404);
        app.MapGet("/api/hires/{id:guid}/start-change", StartEndpoints.Preview).WhoMay(Actions.Edit, Things.Hire).ProducesProblem(400).ProducesProblem(404);
        app.MapPut("/api/hires/{id:guid}/start", StartEndpoints.Save)
            .WhoMay(Actions.Edit, Things.Hire)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(412)
            .ProducesProblem(428);
        app.MapPut("/api/hires/{id:guid}/tasks/{key}/done", TaskEndpoints.Tick)
            .WhoMay(Access.SignedIn)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        app.MapDelete("/api/hires/{id:guid}/tasks/{key}/done", TaskEndpoints.Untick)
            .WhoMay(Access.SignedIn)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        app.MapGet("/api/hires/{id:guid}/tasks/{key}/files/{file:guid}", TaskEndpoints.ShowFile).WhoMay(Access.SignedIn).ProducesProblem(404);
        app.MapPut("/api/hires/{id:guid}/tasks/{key}/skipped", TaskEndpoints.Skip)
            .WhoMay(Actions.Edit, Things.Task)
            .ProducesProblem(400)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        app.MapDelete("/api/hires/{id:guid}/tasks/{key}/skipped", TaskEndpoints.Unskip)
            .WhoMay(Actions.Edit, Things.Task)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
    }
}
