using Fid.Data;
using Fid.Data.Requests;

namespace Fid.Acts.Requests;

/// <summary>Says something of a request: whoever is asked, or who asked, while it waits.</summary>
public sealed class CommentOnRequest(FidDb db)
{
    public async Task<ActResult<RecordRequest>> DoAsync(DecideRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Require(request.Comment, "Say something.", out var comment) is { } wrong)
            return Refusal.Invalid(wrong with { Path = "/comment" });
        return await RequestInHand.SayAsync(db, request, request.Request, request.Version, actor, (act, hand) => Task.FromResult(Say(act, hand)), cancellation);

        Refusal? Say(ActScope act, RequestInHand hand)
        {
            if (hand.Request.State != RequestState.Waiting)
                return RequestInHand.Decided;
            act.Note(actor.Author("requests").Change("request.commented", hand.Request.Id, hand.Request.EmploymentId.ToString(), comment));
            // Those who decide next are to have read it.
            db.Entry(hand.Request).Property(r => r.State).IsModified = true;
            return null;
        }
    }
}
