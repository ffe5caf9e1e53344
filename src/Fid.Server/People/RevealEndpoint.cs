using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.People;

/// <summary>Shows a sealed value to somebody who may see it and asks for it. That they did is in the audit trail.</summary>
internal static class RevealEndpoint
{
    public static void MapReveal(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/records/{id:guid}/fields/{key}/reveal", Show)
            .WhoMay(Actions.See, Things.Record)
            .AsksAgain()
            .ProducesProblem(400)
            .ProducesProblem(404);

    private static async Task<Results<Ok<RevealedValue>, ProblemHttpResult>> Show(
        Guid id,
        string key,
        RevealRequest request,
        Actor actor,
        RevealValue reveal,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (!(await reveal.DoAsync(new RevealValueRequest(id, key, request.Value), actor, cancellation)).IsDone(out var value, out var refusal))
            return Problems.Of(refusal);
        http.Response.Headers.CacheControl = "no-store";
        return TypedResults.Ok(new RevealedValue(value));
    }
}

/// <param name="Value">An earlier value of the record's history; left out, the present one.</param>
public sealed record RevealRequest(Guid? Value);

public sealed record RevealedValue(JsonElement Value);
