using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Reading and saving records. What of one somebody may see and change is said field by field.</summary>
internal static class RecordsEndpoints
{
    public static void MapRecords(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/records/{id:guid}", Show).WhoMay(Actions.See, Things.Record).ProducesProblem(404);
        app.MapPut("/api/records/{id:guid}", Save)
            .WhoMay(Actions.See, Things.Record)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(412)
            .ProducesProblem(422)
            .ProducesProblem(428);
        app.MapPost("/api/records/{id:guid}/readings", Readings.Read).WhoMay(Actions.See, Things.Record).OnlyReads().ProducesProblem(404);
    }

    private static async Task<Results<Ok<RecordResponse>, ProblemHttpResult>> Show(
        Guid id,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (await RecordReader.DescribeAsync(db, id, actor, actor.Today, cancellation) is not { } record)
            return Problems.NotFound();
        http.Response.Headers.ETag = record.Version;
        return TypedResults.Ok(record);
    }

    private static async Task<Results<Ok<RecordResponse>, ProblemHttpResult>> Save(
        Guid id,
        RecordChanges request,
        Actor actor,
        FidDb db,
        SaveRecord save,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(
            new SaveRecordRequest(id, request.Changes, request.From, request.Why, Versions.Seen(http.Request)),
            actor,
            cancellation
        );
        db.ChangeTracker.Clear();
        if (result.Refusal is { Kind: not RefusalKind.ChangedMeanwhile } refusal)
            return Problems.Of(refusal);
        // Somebody may save what takes the record out of their own sight.
        if (await RecordReader.DescribeAsync(db, id, actor, actor.Today, cancellation) is not { } now)
            return Problems.NotFound();
        if (result.Refusal is { } stale)
            return Problems.Of(stale, now);
        http.Response.Headers.ETag = now.Version;
        return TypedResults.Ok(now);
    }
}

/// <summary>Changes to a record.</summary>
/// <param name="Changes">New values by field key; null empties a field.</param>
/// <param name="From">The day from which they hold; left out, they correct what is there.</param>
/// <param name="Why">Why, in the reader's words.</param>
public sealed record RecordChanges(Dictionary<string, JsonElement> Changes, LocalDate? From, string? Why);
