using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Takes a change of a record back: what it made believed is no longer, and what it retired is believed again.</summary>
public sealed class TakeBackChange(FidDb db, RecordWriter records, RecordApprovals approvals)
{
    internal const string Action = "record.takenBack";

    /// <summary>Actions that can be taken back. What made the record is none: nothing would be left of it.</summary>
    public static IReadOnlyList<string> CanBeTakenBack { get; } = ["record.fixed", "record.changed", "record.entryMoved", Action];

    public async Task<ActResult> DoAsync(TakeBackChangeRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Correct, Things.Record))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RecordAsync(db, request.Employment, cancellation);
        if (
            await RecordAccess.FindAsync(actor, db, request.Employment, tracked: true, cancellation) is not var (employment, record)
            || await db
                .Changes.AsNoTracking()
                .FirstOrDefaultAsync(c => c.Id == request.Change && c.SubjectId == request.Employment && CanBeTakenBack.Contains(c.Action), cancellation)
                is not { } taken
        )
            return Refusal.NotFound;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var touched = await records.TouchedBy(employment, taken).Select(v => v.Field).Distinct().ToListAsync(cancellation);
        if (!reader.May(Actions.Correct, Things.Record, record) || !touched.TrueForAll(reader.On(record).MayEdit))
            return Refusal.Forbidden;
        if (await approvals.IsUndoneByOthersAsync(employment, taken, actor.Today, cancellation))
            return Refusal.Conflict(RecordApprovals.NeedsApproval, "Others have to agree to this. Ask for the earlier value on the record.");
        var entry = act.Note(actor.Author("record").Change(Action, request.Employment, request.Change.ToString(), Reason.Clean(request.Why)));
        if (await records.TakeBackAsync(employment, record, taken, entry, actor.Today, cancellation) is { } problem)
            return Refusal.Conflict(problem.Code, problem.Message);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record TakeBackChangeRequest(Guid Employment, Guid Change, string? Why);
