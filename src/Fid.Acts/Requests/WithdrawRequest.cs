using Fid.Data;
using Fid.Data.Requests;

namespace Fid.Acts.Requests;

/// <summary>Takes a request back, as long as it waits: only who asked does.</summary>
public sealed class WithdrawRequest(FidDb db)
{
    public async Task<ActResult<RecordRequest>> DoAsync(DecideRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Check(request.Comment) is { } wrong)
            return Refusal.Invalid(wrong with { Path = "/comment" });
        return await RequestInHand.SayAsync(db, request, request.Request, request.Version, actor, (act, hand) => Task.FromResult(Say(act, hand)), cancellation);

        Refusal? Say(ActScope act, RequestInHand hand)
        {
            if (!hand.IsOf(actor))
                return Refusal.NotFound;
            if (hand.Request.State != RequestState.Waiting)
                return RequestInHand.Decided;
            var author = actor.Author("requests");
            (hand.Request.State, hand.Request.Ended) = (RequestState.Withdrawn, author.At);
            act.Note(author.Change("request.withdrawn", hand.Request.Id, hand.Request.EmploymentId.ToString(), Reason.Clean(request.Comment)));
            return null;
        }
    }
}
