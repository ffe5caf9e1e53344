using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.Lists;

/// <summary>Changes an entry of a list.</summary>
public sealed class SaveEntry(FidDb db, ListWriter writer)
{
    public async Task<ActResult> DoAsync(SaveEntryRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        if (request.Version is not { } seen)
            return Refusal.VersionNeeded;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.ListAsync(db, request.List, cancellation);
        if (await EntryRequest.FindAsync(db.ListEntries, request.List, request.Code, cancellation) is not var (definition, entry))
            return Refusal.NotFound;
        if (entry.Version != seen)
            return Refusal.ChangedMeanwhile;
        var read = await request.Entry.ReadAsync(db, definition, entry.Code, cancellation);
        if (read.Problems.Count > 0)
            return Refusal.Invalid(EntryRequest.Problems(read.Problems));
        if (await writer.PutAsync(definition, read.Content, entry, actor.Author("lists"), cancellation) is { Count: > 0 } wrong)
            return Refusal.Invalid(EntryRequest.Problems(wrong));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="List">The list's key.</param>
/// <param name="Code">The entry's code.</param>
/// <param name="Version">The version of the entry that was seen.</param>
public sealed record SaveEntryRequest(string List, string Code, EntryRequest Entry, uint? Version);
