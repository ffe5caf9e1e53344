using Fid.Acts;
using Fid.Acts.Checklists;
using Fid.Core.Rights;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Hires;

/// <summary>What a person says of a stage's gate: that it passes before all is done, or does not pass though all is.</summary>
internal static class StageEndpoints
{
    public static void MapStages(this IEndpointRouteBuilder app)
    {
        app.MapPut("/api/hires/{id:guid}/stages/{key}/passed", Pass)
            .WhoMay(Actions.Edit, Things.Task)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        app.MapPut("/api/hires/{id:guid}/stages/{key}/reopened", Reopen)
            .WhoMay(Actions.Edit, Things.Task)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Pass(
        Guid id,
        string key,
        StageRequest request,
        Actor actor,
        PassStage pass,
        CancellationToken cancellation
    ) => (await pass.DoAsync(new PassStageRequest(id, key, request.Why), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Reopen(
        Guid id,
        string key,
        StageRequest request,
        Actor actor,
        ReopenStage reopen,
        CancellationToken cancellation
    ) => (await reopen.DoAsync(new ReopenStageRequest(id, key, request.Why), actor, cancellation)).Answer();
}

/// <param name="Why">Kept with the act.</param>
public sealed record StageRequest(string? Why = null);
