using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Hires that come to nothing: the person did not come, or somebody stepped back. Both can be taken back.</summary>
internal static class OutcomeEndpoints
{
    public static async Task<Results<Ok<OutcomeResponse>, ProblemHttpResult>> Close(
        Guid id,
        OutcomeRequest request,
        Actor actor,
        FidDb db,
        CloseHire close,
        CancellationToken cancellation
    )
    {
        if ((await close.DoAsync(new CloseHireRequest(id, request.Outcome, request.Why), actor, cancellation)).Refusal is { } refusal)
            return Problems.Of(refusal);
        var employment = await db
            .Hires.Where(h => h.Id == id)
            .Join(db.Employments, h => h.EmploymentId, e => e.Id, (_, e) => e)
            .AsNoTracking()
            .SingleAsync(cancellation);
        return TypedResults.Ok(
            new OutcomeResponse(request.Outcome, await IssuedAsync(employment, await Reader.OfAsync(actor, db, cancellation), db, actor.Today, cancellation))
        );
    }

    public static async Task<Results<NoContent, ProblemHttpResult>> Reopen(Guid id, Actor actor, ReopenHire reopen, CancellationToken cancellation) =>
        (await reopen.DoAsync(new ReopenHireRequest(id), actor, cancellation)).Answer();

    // What the person holds already and has to give back.
    private static async Task<ReusableFact[]> IssuedAsync(Employment employment, Reader reader, FidDb db, LocalDate today, CancellationToken cancellation)
    {
        var values = reader.Seen(await HireOrigins.ValuesAsync(db, employment, today, cancellation));
        var issued = HireOrigins.Reusable.Where(values.ContainsKey).ToList();
        var display = await RecordReader.DisplayAsync(
            db,
            reader.Fields,
            issued.Select(f => (f, values[f])),
            await ListNames.LoadAsync(db, cancellation, reader.SeesNames),
            cancellation
        );
        return [.. issued.Select(f => new ReusableFact(f, display.GetValueOrDefault(f) ?? values[f].ToString()))];
    }
}

/// <param name="Outcome">How it came to nothing.</param>
public sealed record OutcomeRequest(HireOutcome Outcome, string Why);

/// <param name="ToReturn">What was issued and is to be returned.</param>
public sealed record OutcomeResponse(HireOutcome Outcome, ReusableFact[] ToReturn);
