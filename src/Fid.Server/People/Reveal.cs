using System.Security.Claims;
using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Shows a sealed value to somebody who may see it and asks for it. That they did is in the audit trail.</summary>
internal static class Reveal
{
    /// <summary>The action of the entry in the audit trail; its part is the field.</summary>
    public const string Action = "field.revealed";

    public static void MapReveal(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/records/{id:guid}/fields/{key}/reveal", Show).WhoMay(Access.SeesArrivals).ProducesProblem(400).ProducesProblem(404);

    private static async Task<Results<Ok<RevealedValue>, ProblemHttpResult>> Show(
        Guid id, string key, RevealRequest request, ClaimsPrincipal user, FidDb db, SensitiveValues sensitive, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        if (await RecordAccess.FindAsync(user, db, id, tracked: false, cancellation) is not var (employment, _)) return Problems.NotFound();
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        if (fields.Set.Find(key) is not { Sensitive: true } || !ShownRecord.Sees(fields, ShownRecord.RolesOf(user), [key])) return Problems.NotFound();
        var value = request.Value is { } one
            ? await db.RecordValues.AsNoTracking().FirstOrDefaultAsync(v => v.Id == one && v.Field == key && (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId), cancellation)
            : (await RecordReader.ValuesAsync(db, employment, await clock.TodayAsync(db, cancellation), cancellation)).GetValueOrDefault(key);
        if (value is null || !SealedText.IsSealed(value.Value)) return Problems.NotFound();
        // First the entry, then the value: nobody sees it without one.
        db.Changes.Add(user.Author(clock, "record").Change(Action, id, key));
        await db.SaveChangesAsync(cancellation);
        http.Response.Headers.CacheControl = "no-store";
        return TypedResults.Ok(new RevealedValue(sensitive.Open(value.OwnerId, key, value.Value)));
    }
}

/// <param name="Value">An earlier value of the record's history; left out, the present one.</param>
public sealed record RevealRequest(Guid? Value);

public sealed record RevealedValue(JsonElement Value);
