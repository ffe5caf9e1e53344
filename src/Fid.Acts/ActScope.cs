using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore.Storage;

namespace Fid.Acts;

/// <summary>
/// An act under way: its transaction, and the key under which it is done once. An act that is part of a larger one joins the
/// transaction of that one, which alone commits it. What is not committed when the scope ends is as if it had never been.
/// </summary>
public sealed class ActScope : IAsyncDisposable
{
    private readonly FidDb _db;
    private readonly IDbContextTransaction? _own;

    private ActScope(FidDb db, IDbContextTransaction? own, KeyState state) => (_db, _own, State) = (db, own, state);

    private KeyState State { get; }

    private bool _isSaved;

    /// <summary>Whether the same was done under the same key before: what there is now is the answer.</summary>
    public bool IsDoneAlready => State == KeyState.Done;

    /// <summary>Why the act cannot begin; null where it can.</summary>
    public Refusal? Refusal => State == KeyState.OfAnother ? Refusal.KeyReused : null;

    /// <summary>Begins an act.</summary>
    /// <param name="request">What is asked for, by which the actor's key is told from that of another request.</param>
    public static async Task<ActScope> BeginAsync<T>(FidDb db, Actor actor, T request, CancellationToken cancellation)
    {
        if (db.Database.CurrentTransaction is not null)
            return new ActScope(db, null, KeyState.New);
        var own = await db.Database.BeginTransactionAsync(cancellation);
        return new ActScope(db, own, await DoneOnce.TakeAsync(db, actor, request, cancellation));
    }

    /// <summary>Puts an entry into the trail.</summary>
    public Change Note(Change change)
    {
        _db.Changes.Add(change);
        return change;
    }

    /// <summary>Saves what was done; and commits it, unless it is part of a larger act.</summary>
    public async Task CommitAsync(CancellationToken cancellation)
    {
        await _db.SaveManyAsync(cancellation);
        _isSaved = true;
        if (_own is not null)
            await _own.CommitAsync(cancellation);
    }

    public ValueTask DisposeAsync()
    {
        if (!_isSaved)
            _db.FirstValues.Clear();
        return _own?.DisposeAsync() ?? ValueTask.CompletedTask;
    }
}
