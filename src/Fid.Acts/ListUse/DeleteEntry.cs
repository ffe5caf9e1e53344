using Fid.Acts.Lists;
using Fid.Core.Rights;
using Fid.Data;

namespace Fid.Acts.ListUse;

/// <summary>Deletes an entry that nothing refers to, or ever did.</summary>
public sealed class DeleteEntry(FidDb db)
{
    public async Task<ActResult> DoAsync(DeleteEntryRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.ListForDeletingAsync(db, request.List, cancellation);
        if (await EntryRequest.FindAsync(db.ListEntries, request.List, request.Code, cancellation) is not var (definition, entry))
            return Refusal.NotFound;
        await Locks.EntryAloneAsync(db, entry.Id, cancellation);
        if (await new ListUsage(db, actor.Today).IsReferencedAsync(definition, entry.Code, cancellation))
            return Refusal.Conflict(
                "in-use",
                $"{entry.Name} is used, or was once, and cannot be deleted. Retire it: those who have it keep it, and nobody new gets it."
            );
        db.ListEntries.Remove(entry);
        act.Note(actor.Author("lists").Change("list.deleted", entry.Id, request.List) with { Details = ListWriter.Details(ListWriter.Describe(entry), null) });
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="List">The list's key.</param>
/// <param name="Code">The entry's code.</param>
public sealed record DeleteEntryRequest(string List, string Code);
