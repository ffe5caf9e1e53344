using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Revisions;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Revisions;

/// <summary>Rates of a group changed by a rule: seen person by person before, made from a day on, undone as a whole.</summary>
internal static class RevisionEndpoints
{
    private const int MostShown = 50;

    public static void MapRevisions(this IEndpointRouteBuilder app)
    {
        var revisions = app.MapGroup("/api/pay-revisions");
        revisions.MapGet("/", Made).WhoMay(Actions.Revise, Things.Pay);
        revisions.MapPost("/preview", Preview).WhoMay(Actions.Revise, Things.Pay).OnlyReads().RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
        revisions.MapPost("/", Make).WhoMay(Actions.Revise, Things.Pay).ProducesProblem(400).ProducesProblem(409).ProducesProblem(412);
        revisions.MapPost("/{id:guid}/undo", Undo).WhoMay(Actions.Revise, Things.Pay).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Ok<MadeRevision[]>> Made(FidDb db, CancellationToken cancellation)
    {
        var runs = await db
            .PayRevisionRuns.AsNoTracking()
            .OrderByDescending(r => r.At)
            .Take(MostShown)
            // Of the thousands whom each was about only how many they are.
            .Select(r => new
            {
                r.Id,
                r.At,
                r.ByName,
                r.From,
                r.Why,
                r.Group,
                r.Percent,
                r.AtLeastHourly,
                r.UpToBand,
                People = r.Employments.Length,
                r.Budget,
                r.UndoneByName,
            })
            .ToListAsync(cancellation);
        var names = await ListNames.EntriesAsync(db, cancellation);
        return TypedResults.Ok(
            runs.Select(r => new MadeRevision(
                    r.Id,
                    r.At,
                    r.ByName,
                    r.From,
                    r.Why,
                    Words(r.Group, names),
                    r.Percent,
                    r.AtLeastHourly,
                    r.UpToBand,
                    r.People,
                    r.Budget,
                    r.UndoneByName
                ))
                .ToArray()
        );
    }

    private static string[] Words(RevisedGroup group, ListNames names)
    {
        (string List, string? Code)[] parts = [("grades", group.Grade), ("jobs", group.Job), ("sites", group.Site), ("payGroups", group.PayGroup)];
        return [.. parts.Where(p => p.Code is not null).Select(p => names.Of(p.List, p.Code) ?? p.Code!)];
    }

    /// <summary>What a rule would make of everybody's pay. Nothing is saved.</summary>
    private static async Task<Results<Ok<RevisionPreviewResponse>, ProblemHttpResult>> Preview(
        RevisionAsked request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var read = await RevisionReading.LoadAsync(db, reader, request.Question(), actor.Today, cancellation);
        return read.Answer is { } preview
            ? TypedResults.Ok(RevisionPreviewResponse.Of(preview, reader, await ListNames.EntriesAsync(db, cancellation, reader.SeesNames)))
            : Problems.Invalid(read.Problems);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Make(
        RevisionToMake request,
        Actor actor,
        RevisePay revise,
        CancellationToken cancellation
    ) => (await revise.DoAsync(new RevisePayRequest(request.Id, request.Asked.Question(), request.Why, request.Seen), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Undo(Guid id, Actor actor, UndoRevision undo, CancellationToken cancellation) =>
        (await undo.DoAsync(new UndoRevisionRequest(id), actor, cancellation)).Answer();
}
