using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Checklists;

/// <summary>Looks once a day at every hire under way: a date opens a stage though nobody did anything.</summary>
public sealed class AdvanceChecklistsDaily(FidDb db, ReplanChecklists checklists)
{
    /// <summary>May be done as often as one likes, by several servers at once. Days on which no server ran are caught up together.</summary>
    /// <returns>How many things became of them.</returns>
    public async Task<ActResult<int>> DoAsync(AdvanceChecklistsDailyRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        var today = actor.Today;
        if (await db.Firms.AsNoTracking().FirstOrDefaultAsync(cancellation) is not { } firm || firm.AdvancedOn >= today)
            return 0;
        if (!(await checklists.DoAsync(new ReplanChecklistsRequest(), actor, cancellation)).IsDone(out var steps, out var refusal))
            return refusal;
        // Last: a server that dies before leaves the day to be looked at again.
        await db.Firms.Where(f => f.AdvancedOn == null || f.AdvancedOn < today).ExecuteUpdateAsync(s => s.SetProperty(f => f.AdvancedOn, today), cancellation);
        return steps;
    }
}

public sealed record AdvanceChecklistsDailyRequest;
