using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Templates;

/// <summary>Tasks to take from: those that Fid brings along, and the firm's own that several templates share.</summary>
internal static class SharedTasksEndpoints
{
    public static void MapSharedTasks(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/ready-tasks", Ready).WhoMay(Actions.Edit, Things.Template);
        app.MapGet("/api/shared-tasks", List).WhoMay(Actions.Edit, Things.Template);
        app.MapPut("/api/shared-tasks/{key}", Save).WhoMay(Actions.Edit, Things.Template).ProducesProblem(400).ProducesProblem(412);
        app.MapDelete("/api/shared-tasks/{key}", Remove).WhoMay(Actions.Edit, Things.Template).ProducesProblem(404).ProducesProblem(409);
    }

    private static Ok<ReadyTask[]> Ready() => TypedResults.Ok(ReadyTasks.All.ToArray());

    private static async Task<Ok<SharedTaskResponse[]>> List(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var users = SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation));
        return TypedResults.Ok(
            (await db.SharedTasks.AsNoTracking().OrderBy(t => t.Key).ToListAsync(cancellation)).Select(t => Describe(t, users, reader)).ToArray()
        );
    }

    private static async Task<Results<Ok<SharedTaskResponse>, ProblemHttpResult>> Save(
        string key,
        SharedTaskRequest request,
        Actor actor,
        FidDb db,
        SaveSharedTask save,
        HttpRequest http,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(new SaveSharedTaskRequest(key, request.Properties, request.Why, Versions.Seen(http)), actor, cancellation);
        var there = result.Refusal is null or { Kind: RefusalKind.ChangedMeanwhile }
            ? await db.SharedTasks.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation)
            : null;
        var now = there is null
            ? null
            : Describe(
                there,
                SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation)),
                await Reader.OfAsync(actor, db, cancellation)
            );
        return result.Refusal is { } refusal ? Problems.Of(refusal, now) : TypedResults.Ok(now);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(string key, Actor actor, RemoveSharedTask remove, CancellationToken cancellation) =>
        (await remove.DoAsync(new RemoveSharedTaskRequest(key), actor, cancellation)).Answer();

    private static SharedTaskResponse Describe(SharedTask task, ILookup<string, RoleTemplate> users, Reader reader) =>
        new(
            task.Key,
            reader.Seen(new TemplateEntry(task.Key, task.Properties)).Properties.ToDictionary(),
            Versions.Tag(task.RowVersion),
            [.. users[task.Key].Select(t => t.Name).Order(StringComparer.Ordinal)]
        );
}

/// <param name="Version">What to send as If-Match when changing it.</param>
/// <param name="Templates">The names of the templates that have it.</param>
public sealed record SharedTaskResponse(string Key, Dictionary<string, JsonElement> Properties, string Version, string[] Templates);

public sealed record SharedTaskRequest(Dictionary<string, JsonElement> Properties, string? Why);
