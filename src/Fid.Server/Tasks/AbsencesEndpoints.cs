using Fid.Acts;
using Fid.Acts.Absences;
using Fid.Core;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Tasks;

/// <summary>When somebody is away, and who does their tasks then.</summary>
internal static class AbsencesEndpoints
{
    public static void MapAbsences(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/absences", Show).WhoMay(Access.SignedIn);
        app.MapPost("/api/absences", Enter)
            .WhoMay(Access.SignedIn)
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status409Conflict);
        app.MapDelete("/api/absences/{id:guid}", End).WhoMay(Access.SignedIn).ProducesProblem(StatusCodes.Status404NotFound);
    }

    /// <summary>The user's own absences that are not over, and for whom they stand in today.</summary>
    private static async Task<Ok<AbsencesResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var (account, today) = (actor.Account, actor.Today);
        var own = await (
            from absence in db.AccountAbsences
            join standIn in db.Users on absence.StandInId equals standIn.Id into found
            from standIn in found.DefaultIfEmpty()
            where absence.AccountId == account && absence.To >= today
            orderby absence.From
            select new AbsenceResponse(absence.Id, absence.From, absence.To, standIn.DisplayName)
        ).ToArrayAsync(cancellation);
        var others = actor.Tasks.Accounts.Where(a => a != account).ToArray();
        var standsInFor = await (
            from absence in db.AccountAbsences
            join user in db.Users on absence.AccountId equals user.Id
            where others.Contains(user.Id) && absence.From <= today && absence.To >= today
            orderby user.DisplayName
            select new StandingInFor(user.DisplayName, absence.To)
        ).ToArrayAsync(cancellation);
        return TypedResults.Ok(new AbsencesResponse(own, standsInFor));
    }

    private static async Task<Results<Ok<AbsenceEntered>, ProblemHttpResult>> Enter(
        AbsenceRequest request,
        Actor actor,
        EnterAbsence enter,
        CancellationToken cancellation
    )
    {
        if (request is not { From: { } from, To: { } to })
            return Problems.Invalid([.. Missing(request)]);
        return (await enter.DoAsync(new EnterAbsenceRequest(request.Account ?? actor.Account, from, to, request.StandIn), actor, cancellation)).IsDone(
            out var id,
            out var refusal
        )
            ? TypedResults.Ok(new AbsenceEntered(id))
            : Problems.Of(refusal);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(Guid id, Actor actor, EndAbsence end, CancellationToken cancellation) =>
        (await end.DoAsync(new EndAbsenceRequest(id), actor, cancellation)).Answer();

    private static IEnumerable<Problem> Missing(AbsenceRequest request)
    {
        if (request.From is null)
            yield return new Problem("/from", "missing", "Say from when.");
        if (request.To is null)
            yield return new Problem("/to", "missing", "Say until when.");
    }
}

/// <param name="Own">The user's own that are not over, in their order.</param>
/// <param name="StandsInFor">Those whose tasks they do today.</param>
public sealed record AbsencesResponse(AbsenceResponse[] Own, StandingInFor[] StandsInFor);

/// <param name="StandIn">What the stand-in is called; null for nobody.</param>
public sealed record AbsenceResponse(Guid Id, LocalDate From, LocalDate To, string? StandIn);

/// <param name="To">The last day of the absence, included.</param>
public sealed record StandingInFor(string Name, LocalDate To);

/// <param name="Account">Whose absence it is; null for the user's own.</param>
/// <param name="From">The first day, included.</param>
/// <param name="To">The last day, included.</param>
/// <param name="StandIn">An employment of who acts in their place; null for nobody.</param>
public sealed record AbsenceRequest(Guid? Account, LocalDate? From, LocalDate? To, Guid? StandIn);

public sealed record AbsenceEntered(Guid Id);
