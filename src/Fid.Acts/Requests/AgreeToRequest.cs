using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Requests;

namespace Fid.Acts.Requests;

/// <summary>
/// Agrees to a request. With the last word it is done, as a save of the record under the name of who asked, checked again as it is then. Where the
/// record changed since it was asked, everybody is asked again, with the difference.
/// </summary>
public sealed class AgreeToRequest(FidDb db, RecordWriter records, RequestedChanges requested, RequestRoute routes)
{
    /// <summary>Where changes come from that were asked for; their part is the request.</summary>
    public const string Origin = "request";

    public async Task<ActResult<RecordRequest>> DoAsync(DecideRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Reason.Check(request.Comment) is { } reason)
            return Refusal.Invalid(reason with { Path = "/comment" });
        return await RequestInHand.SayAsync(
            db,
            request,
            request.Request,
            request.Version,
            actor,
            (act, hand) => SayAsync(act, hand, Reason.Clean(request.Comment), actor, cancellation),
            cancellation
        );
    }

    private async Task<Refusal?> SayAsync(ActScope act, RequestInHand hand, string? comment, Actor actor, CancellationToken cancellation)
    {
        if (hand.NotAskedOf(actor) is { } other)
            return other;
        var (asked, author) = (hand.Request, actor.Author("requests"));
        await records.LockUniqueAsync(asked.Changes.Select(c => c.Field), cancellation);
        var held = (await RequestedChanges.HeldAsync(db, [(asked, hand.Employment)], actor.Today, cancellation))[asked.Id];
        if (asked.Changes.All(c => RequestedChanges.IsHeld(c, held)))
        {
            (asked.State, asked.Ended) = (RequestState.Overtaken, author.At);
            act.Note(author.Change("request.overtaken", asked.Id, asked.EmploymentId.ToString()));
            return null;
        }
        if (asked.Changes.Any(c => RequestedChanges.IsStale(c, held)))
        {
            act.Note(author.Change("request.askedAgain", asked.Id, asked.EmploymentId.ToString()));
            return await AskAgainAsync(hand, held, actor, author, cancellation);
        }
        asked.Steps = [.. asked.Steps.Select(s => ReferenceEquals(s, asked.Next) ? Agreed(s) : s)];
        act.Note(author.Change("request.agreed", asked.Id, asked.EmploymentId.ToString(), comment));
        return asked.Next is null ? await ApplyAsync(act, hand, actor, author, cancellation) : null;

        RequestStep Agreed(RequestStep step) => step with { AgreedBy = actor.Account, AgreedByName = author.Name, AgreedAt = author.At };
    }

    private async Task<Refusal?> ApplyAsync(ActScope act, RequestInHand hand, Actor actor, Author author, CancellationToken cancellation)
    {
        var asked = hand.Request;
        var of = new AskedRecord(hand.Reader.Fields, hand.Employment, hand.Record);
        if (await AskerRightsAsync(hand, actor, cancellation) is not { } rights)
            return MayNoLongerAsk(asked);
        var change = (author with { Id = asked.AskedById, Name = asked.AskedByName, Origin = Origin }).Change(
            asked.From is null ? "record.fixed" : "record.changed",
            asked.EmploymentId,
            asked.Id.ToString(),
            asked.Why
        );
        var read = await requested.ReadAsync(of, rights, requested.Open(asked), asked.From, change, actor.Today, cancellation);
        if (read.Entered is not { } edit)
            return DoesNotFit(read.Problems);
        act.Note(change);
        if (await records.SaveAsync([edit with { IsAgreed = true }], actor.Today, cancellation) is { Count: > 0 } clash)
            return DoesNotFit([.. clash.Select(c => c.Problem)]);
        (asked.State, asked.Ended) = (RequestState.Done, author.At);
        return null;
    }

    // What is asked for stays what it was; what it is compared with, and so who is asked, is as the record is now.
    private async Task<Refusal?> AskAgainAsync(
        RequestInHand hand,
        IReadOnlyDictionary<string, JsonElement> held,
        Actor actor,
        Author author,
        CancellationToken cancellation
    )
    {
        var asked = hand.Request;
        var of = new AskedRecord(hand.Reader.Fields, hand.Employment, hand.Record);
        if (await AskerRightsAsync(hand, actor, cancellation) is not { } rights)
            return MayNoLongerAsk(asked);
        var change = author.Change("request.askedAgain", asked.Id, asked.EmploymentId.ToString());
        var read = await requested.ReadAsync(of, rights, requested.Open(asked), asked.From, change, actor.Today, cancellation);
        if (read.Entered is null)
            return DoesNotFit(read.Problems);
        asked.Changes =
        [
            .. asked.Changes.Select(c =>
                RequestedChanges.IsStale(c, held)
                    ? c with
                    {
                        Old = held.TryGetValue(c.Field, out var now) ? now : null,
                        Before = c.Before ?? c.Old ?? JsonValues.Null,
                    }
                    : c
            ),
        ];
        var route = await routes.OfAsync(of, read, asked.AskedById, rights, actor.Today, cancellation);
        // Asked once, it is not done without anybody.
        asked.Steps = route.Steps.Count > 0 ? route.Steps : [new RequestStep("", ApproverBook.WhoeverMay.ToString(), [.. asked.Changes.Select(c => c.Field)])];
        asked.AskedAgain = author.At;
        return null;
    }

    // What whoever asked may ask for today; null where they may no longer.
    private async Task<FieldRights?> AskerRightsAsync(RequestInHand hand, Actor actor, CancellationToken cancellation)
    {
        var asker = await Actor.OfAccountAsync(hand.Request.AskedById, Origin, actor.Clock, db, cancellation);
        var reader = await Reader.OfAsync(asker, db, hand.Reader.Fields, cancellation);
        var rights = reader.On(hand.Record);
        return reader.MayOpen(hand.Record) && hand.Request.Changes.All(c => rights.On(c.Field) >= FieldAccess.Ask) ? rights : null;
    }

    private static Refusal MayNoLongerAsk(RecordRequest asked) =>
        Refusal.Conflict("may-no-longer-ask", $"{asked.AskedByName} may no longer ask for this. Say no, or change the record yourself.");

    private static Refusal DoesNotFit(IReadOnlyList<Problem> problems) => Refusal.Invalid([.. problems.Select(p => p.Under("/changes"))]);
}

/// <param name="Version">The version of the request that was seen.</param>
public sealed record DecideRequest(Guid Request, string? Comment, uint? Version);
