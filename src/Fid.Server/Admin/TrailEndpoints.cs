using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>What concerns security in the trail: who signed in, who tried to, what was refused, what left Fid, who opened what to whom.</summary>
internal static class TrailEndpoints
{
    private const int PageSize = 100;

    public static void MapTrail(this IEndpointRouteBuilder app) => app.MapGet("/api/trail", Show).WhoMay(Actions.See, Things.Trail);

    /// <summary>The latest first.</summary>
    /// <param name="before">Go on before this entry: the number of the last one shown.</param>
    /// <param name="action">Only this action.</param>
    private static async Task<Ok<TrailPage>> Show(long? before, string? action, FidDb db, CancellationToken cancellation)
    {
        var wanted = action is not null && SecurityTrail.Actions.Contains(action) ? [action] : SecurityTrail.Actions.ToArray();
        var rows = await (
            from seal in db.Seals
            join change in db.Changes on seal.ChangeId equals change.Id
            where wanted.Contains(change.Action) && (before == null || seal.Position < before)
            orderby seal.Position descending
            select new TrailEntry(seal.Position, change.At, change.ByName, change.Action, change.Part, change.Why, change.Details)
        )
            .AsNoTracking()
            .Take(PageSize + 1)
            .ToListAsync(cancellation);
        return TypedResults.Ok(new TrailPage([.. rows.Take(PageSize)], rows.Count > PageSize ? rows[PageSize - 1].Position : null, [.. SecurityTrail.Actions]));
    }
}

/// <summary>A page of the trail.</summary>
/// <param name="Next">What to go on before; null at the end.</param>
/// <param name="Actions">The actions there can be.</param>
public sealed record TrailPage(TrailEntry[] Entries, long? Next, string[] Actions);

/// <summary>An entry.</summary>
/// <param name="Position">Its place in the chain.</param>
/// <param name="By">Whose account; empty where there is none of the name that was typed.</param>
/// <param name="Part">What it was about: an endpoint, a field, a sheet.</param>
/// <param name="Details">More, as JSON: the address it came from, what was opened to whom.</param>
public sealed record TrailEntry(long Position, Instant At, string By, string Action, string? Part, string? Why, string? Details);
