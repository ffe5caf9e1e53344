using Fid.Data;
using Fid.Data.Requests;

namespace Fid.Acts.Requests;

/// <summary>Says no to a request, and why: whoever is asked says it for all.</summary>
public sealed class RefuseRequest(FidDb db)
{
    public async Task<ActResult<RecordRequest>> DoAsync(DecideRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Require(request.Comment, "Say why not: whoever asked reads it.", out var why) is { } wrong)
            return Refusal.Invalid(wrong with { Path = "/comment" });
        return await RequestInHand.SayAsync(db, request, request.Request, request.Version, actor, (act, hand) => Task.FromResult(Say(act, hand)), cancellation);

        Refusal? Say(ActScope act, RequestInHand hand)
        {
            if (hand.NotAskedOf(actor) is { } other)
                return other;
            var author = actor.Author("requests");
            (hand.Request.State, hand.Request.Ended) = (RequestState.Refused, author.At);
            act.Note(author.Change("request.refused", hand.Request.Id, hand.Request.EmploymentId.ToString(), why));
            return null;
        }
    }
}
