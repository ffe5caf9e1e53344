using Fid.Acts.People;
using Fid.Data;
using Fid.Data.People;
using Fid.Data.Requests;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Requests;

/// <summary>A request that somebody decides on or says something of, with its record locked: by those who are asked, or by who asked.</summary>
public sealed record RequestInHand(RecordRequest Request, Employment Employment, CurrentRecord Record, Reader Reader, ApproverBook Book)
{
    /// <summary>Says a word on a request, under its lock and that of its record. Of a request that is neither theirs nor asked of them nobody learns
    /// that there is one.</summary>
    /// <param name="request">What is asked for, by which the actor's key is told from that of another request.</param>
    /// <param name="id">The request it is about.</param>
    /// <param name="version">The version of it that was seen.</param>
    /// <param name="say">Says it; a refusal keeps nothing.</param>
    public static async Task<ActResult<RecordRequest>> SayAsync<T>(
        FidDb db,
        T request,
        Guid id,
        uint? version,
        Actor actor,
        Func<ActScope, RequestInHand, Task<Refusal?>> say,
        CancellationToken cancellation
    )
    {
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return (await db.RecordRequests.FindAsync([id], cancellation))!;
        if (!(await TakeAsync(db, id, version, actor, cancellation)).IsDone(out var hand, out var taken))
            return taken;
        if (await say(act, hand) is { } refused)
            return refused;
        await act.CommitAsync(cancellation);
        return hand.Request;
    }

    private static async Task<ActResult<RequestInHand>> TakeAsync(FidDb db, Guid id, uint? version, Actor actor, CancellationToken cancellation)
    {
        await Locks.RequestAsync(db, id, cancellation);
        var of = await db.RecordRequests.Where(r => r.Id == id).Select(r => (Guid?)r.EmploymentId).SingleOrDefaultAsync(cancellation);
        if (of is not { } employment)
            return Refusal.NotFound;
        await Locks.RecordAsync(db, employment, cancellation);
        if (await FindAsync(db, id, actor, tracked: true, cancellation) is not { } hand)
            return Refusal.NotFound;
        if (version is null)
            return Refusal.VersionNeeded;
        // Of two who decide at once, the second saw what no longer is.
        return hand.Request.RowVersion == version ? hand : Refusal.ChangedMeanwhile;
    }

    /// <summary>The request to read, where it is theirs or asked of them; null for all others.</summary>
    public static Task<RequestInHand?> ReadAsync(FidDb db, Guid id, Actor actor, CancellationToken cancellation) =>
        FindAsync(db, id, actor, tracked: false, cancellation);

    private static async Task<RequestInHand?> FindAsync(FidDb db, Guid id, Actor actor, bool tracked, CancellationToken cancellation)
    {
        var (requests, employments, records) = (db.RecordRequests.AsTracking(), db.Employments.AsTracking(), db.CurrentRecords.AsTracking());
        if (!tracked)
            (requests, employments, records) = (requests.AsNoTracking(), employments.AsNoTracking(), records.AsNoTracking());
        if (await requests.SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } request)
            return null;
        var employment = await employments.SingleAsync(e => e.Id == request.EmploymentId, cancellation);
        var record = await records.SingleAsync(r => r.EmploymentId == request.EmploymentId, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var book = await ApproverBook.LoadAsync(db, reader.Fields, [record], [request.AskedById], request.Steps.Select(s => s.By), actor.Today, cancellation);
        var hand = new RequestInHand(request, employment, record, reader, book);
        return hand.IsOf(actor) || hand.WasAskedOf(actor) ? hand : null;
    }

    /// <summary>Whether somebody asked for it.</summary>
    public bool IsOf(Actor actor) => Request.AskedById == actor.AccountId;

    /// <summary>Whether it is somebody's to decide on: it waits, they are asked, and they may see all it is about.</summary>
    public bool IsAskedOf(Actor actor) => IsAskedOf(Request, Record, actor, Reader, Book);

    /// <summary>Why it is not somebody's to decide on; null where it is.</summary>
    public Refusal? NotAskedOf(Actor actor) =>
        IsAskedOf(actor) ? null
        : WasAskedOf(actor) ? Decided
        : Refusal.NotFound;

    /// <summary>It waits no more, or somebody else has said the word.</summary>
    public static Refusal Decided { get; } = Refusal.Conflict("decided", "This has been decided on already.");

    // Of two who are asked together, the second learns what became of it.
    private bool WasAskedOf(Actor actor) =>
        actor.AccountId is { } account
        && Sees(Request, Record, Reader)
        && Request
            .Steps.TakeWhile(s => s.AgreedAt is not null)
            .Append(Request.Next)
            .Any(s => s is not null && (s.AgreedBy == account || Book.Who(Request, s, Record).Contains(ApproverBook.IdOf(actor.PersonId, account))));

    /// <summary>Whether somebody may see all a request is about.</summary>
    public static bool Sees(RecordRequest request, CurrentRecord record, Reader reader) =>
        reader.On(record) is var rights && request.Changes.All(c => rights.Sees(c.Field));

    /// <inheritdoc cref="IsAskedOf(Actor)"/>
    public static bool IsAskedOf(RecordRequest request, CurrentRecord record, Actor actor, Reader reader, ApproverBook book) =>
        request is { State: RequestState.Waiting, Next: { } step }
        && actor.AccountId is { } account
        && Sees(request, record, reader)
        && book.Who(request, step, record).Contains(ApproverBook.IdOf(actor.PersonId, account));
}
