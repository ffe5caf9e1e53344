using Fid.Acts;
using Fid.Acts.Offers;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>An offer in up to three forms: what each comes to for both sides, on paper, and one of them taken over into the record.</summary>
internal static class OfferEndpoints
{
    public static void MapOffers(this IEndpointRouteBuilder app)
    {
        var offer = app.MapGroup("/api/records/{id:guid}/offer");
        offer.MapPost("/", Compare).WhoMay(Actions.See, Things.Record).OnlyReads().ProducesProblem(400).ProducesProblem(404);
        offer
            .MapPost("/paper", Paper)
            .WhoMay(Actions.See, Things.Record)
            .OnlyReads()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503);
        offer.MapPut("/taken", Take).WhoMay(Actions.See, Things.Record).ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
    }

    private static async Task<Results<Ok<OfferResponse>, ProblemHttpResult>> Compare(
        Guid id,
        OfferRequest request,
        Actor actor,
        OfferReading offers,
        CancellationToken cancellation
    )
    {
        if (await offers.ReadAsync(id, request, actor, cancellation) is not { } read)
            return Problems.NotFound();
        return read.Answer is { } offer ? TypedResults.Ok(offer) : Problems.Invalid(read.Problems);
    }

    /// <summary>The same as a PDF to hand over: without the band, colleagues, and what it costs the firm.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Paper(
        Guid id,
        OfferRequest request,
        Actor actor,
        FidDb db,
        OfferReading offers,
        PdfWriter pdf,
        CancellationToken cancellation
    )
    {
        if (await offers.ReadAsync(id, request, actor, cancellation) is not { } read)
            return Problems.NotFound();
        if (read.Answer is not { } offer)
            return Problems.Invalid(read.Problems);
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        return await pdf.WriteAsync(OfferPaper.Html(offer, firm, actor.Today), cancellation) is { } made
            ? TypedResults.File(made, "application/pdf", "offer.pdf")
            : PdfWriter.NotMade();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Take(
        Guid id,
        OfferTaken request,
        Actor actor,
        TakeOffer take,
        HttpContext http,
        CancellationToken cancellation
    ) => (await take.DoAsync(new TakeOfferRequest(id, request.Changes, request.Start, request.Why, Versions.Seen(http.Request)), actor, cancellation)).Answer();
}
