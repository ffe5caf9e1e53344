using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>Adds an entry to a list.</summary>
public sealed class AddEntry(FidDb db, ListWriter writer)
{
    /// <returns>The entry's code, as it is kept.</returns>
    public async Task<ActResult<string>> DoAsync(AddEntryRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        if (ShippedLists.Find(request.List) is not { } definition)
            return Refusal.NotFound;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.ListAsync(db, request.List, cancellation);
        var read = await request.Entry.ReadAsync(db, definition, request.Entry.Code, cancellation);
        if (act.IsDoneAlready)
            return (await db.ListEntries.AsNoTracking().Coded(request.List, read.Content.Code).SingleAsync(cancellation)).Code;
        if (read.Problems.Count > 0)
            return Refusal.Invalid(EntryRequest.Problems(read.Problems));
        if (await writer.PutAsync(definition, read.Content, null, actor.Author("lists"), cancellation) is { Count: > 0 } wrong)
            return Refusal.Invalid(EntryRequest.Problems(wrong));
        await act.CommitAsync(cancellation);
        return read.Content.Code;
    }
}

/// <param name="List">The list's key.</param>
public sealed record AddEntryRequest(string List, EntryRequest Entry);
