using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.Templates;
using Fid.Server.Hires;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Templates;

/// <summary>Tasks to take from: those that Fid brings along, and the firm's own that several templates share.</summary>
internal static class SharedTasksEndpoints
{
    public static void MapSharedTasks(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/ready-tasks", Ready).WhoMay(Access.Coordinates);
        app.MapGet("/api/shared-tasks", List).WhoMay(Access.Coordinates);
        app.MapPut("/api/shared-tasks/{key}", Save).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(412);
        app.MapDelete("/api/shared-tasks/{key}", Remove).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
    }

    private static Ok<ReadyTask[]> Ready() => TypedResults.Ok(ReadyTasks.All.ToArray());

    private static async Task<Ok<SharedTaskResponse[]>> List(FidDb db, CancellationToken cancellation)
    {
        var users = SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation));
        return TypedResults.Ok((await db.SharedTasks.AsNoTracking().OrderBy(t => t.Key).ToListAsync(cancellation)).Select(t => Describe(t, users)).ToArray());
    }

    /// <summary>Adds a shared task, or changes it in every template that has it.</summary>
    private static async Task<Results<Ok<SharedTaskResponse>, ProblemHttpResult>> Save(
        string key, SharedTaskRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpRequest http, CancellationToken cancellation)
    {
        if (!TemplateDrafts.Code().IsMatch(key)) return Problems.Invalid(new Problem("/key", "bad-value", "A key has up to 40 small letters, digits and hyphens."));
        if (Reason.Check(request.Why) is { } reason) return Problems.Invalid(reason);
        var review = await TemplateReview.LoadAsync(db, await new FieldBook(db).LiveAsync(cancellation), await TemplateBook.LoadAsync(db, cancellation), cancellation);
        var wrong = review.OfTask(new TemplateEntry(key, request.Properties)).ToList();
        if (wrong.Count > 0) return Problems.Invalid([.. wrong.Select(f => new Problem($"/properties/{f.Property}", f.Code, f.Message))]);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var author = user.Author(clock, "templates");
        var task = await db.SharedTasks.SingleOrDefaultAsync(t => t.Key == key, cancellation);
        if (task is null)
        {
            task = new SharedTask { Key = key, Properties = request.Properties };
            db.SharedTasks.Add(task);
        }
        else
        {
            if (Versions.Seen(http) != task.RowVersion) return Problems.Stale(Describe(task, SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation))));
            await new SharedTasks(db).ChangeAsync(task, request.Properties, author, Reason.Clean(request.Why), cancellation);
        }
        db.Changes.Add(author.Change("sharedTask.saved", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), key, Reason.Clean(request.Why)));
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(Describe(task, SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation))));
    }

    /// <summary>Takes away a shared task that no template has.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(string key, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        if (await db.SharedTasks.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } task) return Problems.NotFound();
        var users = SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation))[key].Select(t => t.Name).ToList();
        if (users.Count > 0) return Problems.Conflict("in-use", $"These templates have it: {string.Join(", ", users)}.");
        db.SharedTasks.Remove(task);
        db.Changes.Add(user.Author(clock, "templates").Change("sharedTask.removed", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), key));
        await db.SaveChangesAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static SharedTaskResponse Describe(SharedTask task, ILookup<string, RoleTemplate> users) =>
        new(task.Key, task.Properties.ToDictionary(), Versions.Tag(task.RowVersion), [.. users[task.Key].Select(t => t.Name).Order(StringComparer.Ordinal)]);
}

/// <param name="Version">What to send as If-Match when changing it.</param>
/// <param name="Templates">The names of the templates that have it.</param>
public sealed record SharedTaskResponse(string Key, Dictionary<string, JsonElement> Properties, string Version, string[] Templates);

public sealed record SharedTaskRequest(Dictionary<string, JsonElement> Properties, string? Why);
