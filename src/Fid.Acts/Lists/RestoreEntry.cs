using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Lists;

/// <summary>Brings a retired entry back into use.</summary>
public sealed class RestoreEntry(FidDb db)
{
    public async Task<ActResult> DoAsync(RestoreEntryRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.ListAsync(db, request.List, cancellation);
        if (await EntryRequest.FindAsync(db.ListEntries, request.List, request.Code, cancellation) is not var (_, entry))
            return Refusal.NotFound;
        act.Note(ListWriter.SetRetired(entry, false, actor.Author("lists"), null));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="List">The list's key.</param>
/// <param name="Code">The entry's code.</param>
public sealed record RestoreEntryRequest(string List, string Code);
