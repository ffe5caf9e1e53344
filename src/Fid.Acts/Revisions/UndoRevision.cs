using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Revisions;

/// <summary>Takes a revision of pay back as a whole: everybody is paid again as before, or nobody where something changed since.</summary>
public sealed class UndoRevision(FidDb db, RecordWriter records)
{
    private const int MostNamed = 5;

    public async Task<ActResult> DoAsync(UndoRevisionRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Revise, Things.Pay))
            return Refusal.Forbidden;
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.PayRevisionRuns.AsNoTracking().SingleOrDefaultAsync(r => r.Id == request.Revision, cancellation) is not { } run)
            return Refusal.NotFound;
        await Locks.RecordsAsync(db, run.Employments, cancellation);
        // Undone by somebody else while this waited.
        if (await db.PayRevisionRuns.AnyAsync(r => r.Id == run.Id && r.UndoneByName != null, cancellation))
            return Refusal.Conflict("undone-already", "This revision is undone already.");
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var open = await reader.Readable(db.CurrentRecords.AsNoTracking()).Where(r => run.Employments.Contains(r.EmploymentId)).ToListAsync(cancellation);
        if (open.Count != run.Employments.Length || !open.TrueForAll(r => reader.On(r).MayEdit("pay_rate")))
            return Refusal.Forbidden;
        var author = actor.Author("revision");
        var touched = await new RecordRun(run.Id, run.Why).TakeBackAsync(db, records, run.Employments, keep: true, author, actor.Today, cancellation);
        if (touched.Count > 0)
            return Refusal.Conflict("changed-since", $"Pay was changed since of {Named(touched)}. Take that back first: nothing is undone by halves.");
        (await db.PayRevisionRuns.SingleAsync(r => r.Id == run.Id, cancellation)).UndoneByName = author.Name;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static string Named(IReadOnlyList<string> numbers) =>
        string.Join(", ", numbers.Take(MostNamed)) + (numbers.Count > MostNamed ? $" and {numbers.Count - MostNamed} more" : "");
}

public sealed record UndoRevisionRequest(Guid Revision);
