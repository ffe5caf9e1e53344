using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Requests;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Requests;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Requests;

/// <summary>Changes of records that are asked for: what waits for the user, what they asked, and their word on it. The acts let nobody see or
/// decide what is neither theirs nor asked of them.</summary>
internal static class RequestsEndpoints
{
    /// <summary>How many that wait are looked through, and how many of one's own that were decided on are shown.</summary>
    private const int MostWaiting = 1000,
        MostDecided = 50;

    public static void MapRequests(this IEndpointRouteBuilder app)
    {
        var record = app.MapGroup("/api/records/{id:guid}/requests");
        record
            .MapPost("", Ask)
            .WhoMay(Actions.See, Things.Record)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(412)
            .ProducesProblem(422)
            .ProducesProblem(428);
        record.MapPost("/route", Route).WhoMay(Actions.See, Things.Record).OnlyReads().ProducesProblem(400).ProducesProblem(404);
        app.MapGet("/api/requests", Show).WhoMay(Access.SignedIn);
        var one = app.MapGroup("/api/requests/{id:guid}");
        one.MapGet("/effects", RequestEffects.Show).WhoMay(Access.SignedIn).ProducesProblem(404);
        one.MapGet("/others", Others).WhoMay(Access.SignedIn).ProducesProblem(404);
        Decide<AgreeToRequest>("agree", (act, request, actor, cancellation) => act.DoAsync(request, actor, cancellation));
        Decide<RefuseRequest>("refuse", (act, request, actor, cancellation) => act.DoAsync(request, actor, cancellation));
        Decide<WithdrawRequest>("withdraw", (act, request, actor, cancellation) => act.DoAsync(request, actor, cancellation));
        Decide<CommentOnRequest>("comment", (act, request, actor, cancellation) => act.DoAsync(request, actor, cancellation));
        WithProblems(one.MapPost("/hand-on", HandOn));

        void Decide<TAct>(string word, Func<TAct, DecideRequest, Actor, CancellationToken, Task<ActResult<RecordRequest>>> act)
            where TAct : class =>
            WithProblems(
                one.MapPost(
                    $"/{word}",
                    async Task<Results<Ok<RequestResponse>, NoContent, ProblemHttpResult>> (
                        Guid id,
                        CommentRequest request,
                        Actor actor,
                        FidDb db,
                        TAct of,
                        HttpRequest http,
                        CancellationToken cancellation
                    ) =>
                        await AnswerAsync(
                            await act(of, new DecideRequest(id, request.Comment, Versions.Seen(http)), actor, cancellation),
                            id,
                            actor,
                            db,
                            cancellation
                        )
                )
            );

        static void WithProblems(RouteHandlerBuilder endpoint) =>
            endpoint
                .WhoMay(Access.SignedIn)
                .ProducesProblem(400)
                .ProducesProblem(404)
                .ProducesProblem(409)
                .ProducesProblem(412)
                .ProducesProblem(422)
                .ProducesProblem(428);
    }

    private static async Task<Ok<WaitingResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await RequestReader.OfAsync(db, actor, cancellation);
        var waiting = await reader.ReadAsync(
            db.RecordRequests.Where(r => r.State == RequestState.Waiting).OrderBy(r => r.AskedAt).Take(MostWaiting),
            cancellation
        );
        var decided = await reader.ReadAsync(
            db.RecordRequests.Where(r => r.State != RequestState.Waiting && r.AskedById == actor.AccountId).OrderByDescending(r => r.Ended).Take(MostDecided),
            cancellation
        );
        return TypedResults.Ok(
            new WaitingResponse(
                actor.Today,
                [.. waiting.Where(r => r.MayDecide).OrderBy(r => r.AskedAt)],
                [.. waiting.Where(r => r.MayWithdraw).OrderByDescending(r => r.AskedAt), .. decided.OrderByDescending(r => r.Ended)]
            )
        );
    }

    private static async Task<Results<Ok<RequestResponse>, ProblemHttpResult>> Ask(
        Guid id,
        AskRequest request,
        Actor actor,
        FidDb db,
        AskForChange ask,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var result = await ask.DoAsync(
            new AskForChangeRequest(id, request.Changes, request.From, request.Why, Versions.Seen(http.Request)),
            actor,
            cancellation
        );
        db.ChangeTracker.Clear();
        if (!result.IsDone(out var asked, out var refusal))
            return Problems.Of(
                refusal,
                refusal.Kind == RefusalKind.ChangedMeanwhile ? await People.RecordReader.DescribeAsync(db, id, actor, actor.Today, cancellation) : null
            );
        var reader = await RequestReader.OfAsync(db, actor, cancellation);
        return TypedResults.Ok((await reader.ReadAsync(db.RecordRequests.Where(r => r.Id == asked.Id), cancellation)).Single());
    }

    /// <summary>Who would be asked about some changes. Nothing is saved.</summary>
    private static async Task<Results<Ok<RouteResponse>, ProblemHttpResult>> Route(
        Guid id,
        AskRequest request,
        Actor actor,
        FidDb db,
        RequestedChanges requested,
        RequestRoute routes,
        CancellationToken cancellation
    )
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: true, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (of, rights) = (new AskedRecord(reader.Fields, employment, record), reader.On(record));
        var change = actor.Author("record").Change("request.asked", id);
        var read = await requested.ReadAsync(of, rights, request.Changes, request.From, change, actor.Today, cancellation);
        if (read.Entered is null)
            return Problems.Invalid([.. read.Problems.Select(p => p.Under("/changes"))]);
        var route = await routes.OfAsync(of, read, actor.Account, rights, actor.Today, cancellation);
        return TypedResults.Ok(new RouteResponse(RequestReader.Steps(reader.Fields, route.Steps.Zip(route.Who), route.Book, rights), [.. route.Direct]));
    }

    /// <summary>Who could be given the word on a request.</summary>
    private static async Task<Results<Ok<CouldBeAsked[]>, ProblemHttpResult>> Others(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (await RequestInHand.ReadAsync(db, id, actor, cancellation) is not { } hand || !hand.IsAskedOf(actor))
            return Problems.NotFound();
        return TypedResults.Ok(
            hand.Book.Others(AskedChange.Of(hand.Request, hand.Record))
                .Where(o => o.Account != actor.AccountId)
                .Select(o => new CouldBeAsked(o.Account, o.Name))
                .ToArray()
        );
    }

    private static async Task<Results<Ok<RequestResponse>, NoContent, ProblemHttpResult>> HandOn(
        Guid id,
        HandOnBody request,
        Actor actor,
        FidDb db,
        HandRequestOn handOn,
        HttpRequest http,
        CancellationToken cancellation
    ) =>
        await AnswerAsync(
            await handOn.DoAsync(new HandOnRequest(id, request.To, request.Comment, Versions.Seen(http)), actor, cancellation),
            id,
            actor,
            db,
            cancellation
        );

    // The request as it is now, to somebody whom it still concerns; nothing to those who have said their word.
    private static async Task<Results<Ok<RequestResponse>, NoContent, ProblemHttpResult>> AnswerAsync(
        ActResult<RecordRequest> result,
        Guid id,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        db.ChangeTracker.Clear();
        if (result.Refusal is { Kind: not RefusalKind.ChangedMeanwhile } refusal)
            return Problems.Of(refusal);
        var reader = await RequestReader.OfAsync(db, actor, cancellation);
        var now = (await reader.ReadAsync(db.RecordRequests.Where(r => r.Id == id), cancellation)).SingleOrDefault();
        if (result.Refusal is { } stale)
            return Problems.Of(stale, now);
        return now is null ? TypedResults.NoContent() : TypedResults.Ok(now);
    }
}
