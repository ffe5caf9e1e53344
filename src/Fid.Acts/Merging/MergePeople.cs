using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Json;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Merging;

/// <summary>Makes one person of two who were found to be one; hires that were opened twice are closed with it.</summary>
public sealed class MergePeople(FidDb db, PersonMerging merging, HireClosing closing)
{
    private const string EnteredTwice = "Entered twice";

    /// <returns>The merge, by which it is undone.</returns>
    public async Task<ActResult<Guid>> DoAsync(MergePeopleRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Merge, Things.Record))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (
            await PairAsync(db, request.Employment, request.With, cancellation) is not var (kept, other)
            || !await MayAsync(db, actor, [kept.PersonId, other.PersonId], cancellation)
        )
            return Refusal.NotFound;
        if (act.IsDoneAlready)
            return await db.PersonMerges.Where(m => m.KeptId == kept.PersonId).OrderByDescending(m => m.At).Select(m => m.Id).FirstAsync(cancellation);
        if (kept.PersonId == other.PersonId)
            return Refusal.Invalid("/with", "self", "These are stints of one person already.");
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (request.Take.FirstOrDefault(f => !reader.MayEdit(f)) is { } forbidden)
            return Refusal.Invalid($"/take/{JsonPointer.Escape(forbidden)}", "read-only", "You may not change this.");
        Guid[] people = [kept.PersonId, other.PersonId];
        var open = await db
            .Hires.Where(h => h.Closed == null && db.Employments.Any(e => e.Id == h.EmploymentId && people.Contains(e.PersonId)))
            .Select(h => h.Id)
            .ToListAsync(cancellation);
        for (var i = 0; i < request.Close.Count; i++)
            if (!open.Contains(request.Close[i]))
                return Refusal.Invalid($"/close/{i}", "not-open", "This hire is not under way. Look at what is there now.");

        var (author, why) = (actor.Author("record"), Reason.Clean(request.Why));
        await merging.HoldAsync(people, [.. request.Close.Distinct()], cancellation);
        var (merge, problems) = await merging.MergeAsync(kept.PersonId, other.PersonId, request.Take, author, why, actor.Today, cancellation);
        if (merge is null)
            return Refusal.Invalid([.. problems.Select(p => p.Under("/take"))]);
        foreach (var hire in request.Close.Distinct())
        {
            var change = act.Note(author.Change("hire.withdrawn", hire, null, why));
            await closing.CloseAsync(
                (await HireInHand.TakeAsync(db, hire, cancellation))!,
                HireOutcome.Withdrawn,
                why ?? EnteredTwice,
                change,
                actor.Today,
                cancellation
            );
        }
        merge.ClosedHires = [.. request.Close.Distinct()];
        await db.SaveChangesAsync(cancellation);
        // Of a person who is here, or coming, something has to go on.
        if (request.Close.Count > 0 && !await Stints.AnyGoesOnAsync(db, kept.PersonId, actor.Today, null, cancellation))
            return Refusal.Invalid(
                $"/close/{request.Close.Count - 1}",
                "nothing-left",
                "Then nothing of this person would go on. Leave one hire or stint open."
            );
        await act.CommitAsync(cancellation);
        return merge.Id;
    }

    /// <summary>Whether somebody may merge all records of some people.</summary>
    public static async Task<bool> MayAsync(FidDb db, Actor actor, Guid[] people, CancellationToken cancellation)
    {
        if (actor.Rights.MayToAll(Actions.Merge, Things.Record))
            return true;
        var theirs = db.CurrentRecords.Where(r => people.Contains(r.PersonId));
        var reached = (await ActorReach.OfAsync(actor, db, cancellation)).Within(theirs, actor.Rights.Where(Actions.Merge, Things.Record));
        return await theirs.CountAsync(cancellation) == await reached.CountAsync(cancellation);
    }

    /// <summary>Two employments; null where one is not there.</summary>
    public static async Task<(Employment Kept, Employment Other)?> PairAsync(FidDb db, Guid one, Guid other, CancellationToken cancellation)
    {
        var both = await db.Employments.AsNoTracking().Where(e => e.Id == one || e.Id == other).ToDictionaryAsync(e => e.Id, cancellation);
        return both.TryGetValue(one, out var kept) && both.TryGetValue(other, out var second) ? (kept, second) : null;
    }
}

/// <param name="Employment">A stint of the person that is kept.</param>
/// <param name="With">A stint of the other.</param>
/// <param name="Take">The fields whose value is the other's; the rest stays, and what is empty is filled.</param>
/// <param name="Close">The hires that are closed with it, since the person was entered twice.</param>
public sealed record MergePeopleRequest(Guid Employment, Guid With, IReadOnlyList<string> Take, string? Why, IReadOnlyList<Guid> Close);
