using Fid.Acts.Lists;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.ListUse;

/// <summary>Retires an entry: those who have it keep it, or move to another from a day on.</summary>
public sealed class RetireEntry(FidDb db, ListMover mover)
{
    public async Task<ActResult> DoAsync(RetireEntryRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        List<Problem> problems = [.. new[] { Reason.Check(request.Why) }.OfType<Problem>()];
        if (request.From is { } from && !ValueCheck.IsSensible(from))
            problems.Add(new Problem("/from", "bad-date", "Enter a date from 1900 to 2199."));
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.ListAsync(db, request.List, cancellation);
        if (await EntryRequest.FindAsync(db.ListEntries, request.List, request.Code, cancellation) is not var (definition, entry))
            return Refusal.NotFound;
        var (author, why) = (actor.Author("lists"), Reason.Clean(request.Why));
        if (request.MoveTo is { } to)
        {
            var target = await db.ListEntries.AsNoTracking().Coded(request.List, to).FirstOrDefaultAsync(cancellation);
            if (target is null || target.Retired || target.Code == entry.Code)
                return Refusal.Invalid("/moveTo", "unknown-entry", "Choose another entry that is not retired.");
            if (await mover.MoveAsync(definition, entry.Code, target.Code, request.From ?? actor.Today, author, why, actor.Today, cancellation) is { } unfit)
                return Refusal.Invalid("/moveTo", unfit.Code, $"{unfit.Path.Split('/')[1]}: {unfit.Message}");
            // Moving may have closed a ring: the children of a department cannot go below themselves.
            var all = (await db.ListEntries.AsNoTracking().Where(e => e.List == request.List).ToListAsync(cancellation)).ConvertAll(e => e.Content());
            if (ListConsistency.Between(definition, all).FirstOrDefault() is { Message: not null } wrong)
                return Refusal.Invalid("/moveTo", wrong.Code, wrong.Message);
            entry = await db.ListEntries.Coded(request.List, request.Code).SingleAsync(cancellation);
        }
        act.Note(ListWriter.SetRetired(entry, true, author, why));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="List">The list's key.</param>
/// <param name="Code">The entry's code.</param>
/// <param name="MoveTo">The code of the entry its users move to; null to leave it to those who have it.</param>
/// <param name="From">The day from which people have the other; today when left out.</param>
public sealed record RetireEntryRequest(string List, string Code, string? MoveTo, LocalDate? From, string? Why);
