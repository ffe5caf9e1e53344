using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Takes a run of template updates back, hire by hire; those that were changed since stay as they are.</summary>
public sealed class UndoTemplateUpdates(FidDb db, RecordWriter records)
{
    public async Task<ActResult<UndoneUpdates>> DoAsync(UndoTemplateUpdatesRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.UpdateRunAsync(db, request.Run, cancellation);
        if (await db.TemplateUpdateRuns.SingleOrDefaultAsync(r => r.Id == request.Run, cancellation) is not { } run)
            return Refusal.NotFound;
        if (act.IsDoneAlready)
            return new UndoneUpdates(run.Hires.Count, []);
        if (run.Undone)
            return Refusal.Conflict("undone-already", "This has been undone already.");
        var hires = run.Hires.Select(h => h.HireId).ToArray();
        if (!(await ReachedHires.AmongAsync(actor, db, Actions.Edit, hires, cancellation)).IsSupersetOf(hires))
            return Refusal.NotFound;
        await Locks.RecordsAsync(db, await db.Hires.Where(h => hires.Contains(h.Id)).Select(h => h.EmploymentId).ToListAsync(cancellation), cancellation);
        var left = await new TemplateUpdateWriter(db, records).UndoAsync(run, actor.Author("templates"), actor.Today, cancellation);
        await act.CommitAsync(cancellation);
        return new UndoneUpdates(run.Hires.Count - left.Count, left);
    }
}

public sealed record UndoTemplateUpdatesRequest(Guid Run);

/// <param name="Undone">How many hires are as before.</param>
/// <param name="Left">Hires that stay as they are, because they were changed since.</param>
public sealed record UndoneUpdates(int Undone, IReadOnlyList<Guid> Left);
