using Fid.Data;
using Fid.Data.Requests;

namespace Fid.Acts.Requests;

/// <summary>Gives the word on a request to somebody else, who may see all it is about: they are asked in place of those who are asked now.</summary>
public sealed class HandRequestOn(FidDb db)
{
    public async Task<ActResult<RecordRequest>> DoAsync(HandOnRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Check(request.Comment) is { } wrong)
            return Refusal.Invalid(wrong with { Path = "/comment" });
        return await RequestInHand.SayAsync(db, request, request.Request, request.Version, actor, (act, hand) => Task.FromResult(Say(act, hand)), cancellation);

        Refusal? Say(ActScope act, RequestInHand hand)
        {
            if (hand.NotAskedOf(actor) is { } other)
                return other;
            var others = hand.Book.Others(AskedChange.Of(hand.Request, hand.Record));
            if (request.To == actor.Account || others.FirstOrDefault(o => o.Account == request.To) is not { Name: { } name })
                return Refusal.Invalid("/to", "cannot-be-asked", "Choose somebody who may see this, and whom it does not concern.");
            hand.Request.Steps = [.. hand.Request.Steps.Select(s => ReferenceEquals(s, hand.Request.Next) ? s with { HandedTo = request.To } : s)];
            var note = string.Join(": ", new[] { name, Reason.Clean(request.Comment) }.OfType<string>());
            act.Note(
                actor
                    .Author("requests")
                    .Change("request.handedOn", hand.Request.Id, hand.Request.EmploymentId.ToString(), note[..Math.Min(note.Length, Reason.Longest)])
            );
            return null;
        }
    }
}

/// <param name="To">The account of whom it is given to.</param>
/// <param name="Version">The version of the request that was seen.</param>
public sealed record HandOnRequest(Guid Request, Guid To, string? Comment, uint? Version);
