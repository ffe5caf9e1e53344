using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.PayRuns;

/// <summary>Begins the checklist of each pay group's next run from the template of the run before it that had one.</summary>
public sealed class BeginNextRunChecklists(FidDb db)
{
    /// <summary>May be done as often as one likes: a run has one checklist.</summary>
    /// <returns>How many were begun.</returns>
    public async Task<ActResult<int>> DoAsync(BeginNextRunChecklistsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        if (!await db.RunChecklists.AnyAsync(cancellation))
            return 0;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return 0;
        await Locks.RunChecklistsAsync(db, cancellation);
        var begunBefore = (
            await db
                .RunChecklists.Select(c => new
                {
                    c.PayGroup,
                    c.Period,
                    c.TemplateCode,
                })
                .ToListAsync(cancellation)
        ).ToLookup(c => c.PayGroup);
        var pay = await PayReading.LoadAsync(db, cancellation);
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        var begun = 0;
        foreach (var ofGroup in begunBefore.OrderBy(g => g.Key, StringComparer.Ordinal))
        {
            if (pay.Groups.GetValueOrDefault(ofGroup.Key) is not { } group || CheckedRun.Next(pay, group, actor.Today) is not { } next)
                continue;
            // Somebody may have begun this one, or a later one, ahead of its time.
            if (ofGroup.Any(c => c.Period == next.Run.Start) || ofGroup.Where(c => c.Period < next.Run.Start).MaxBy(c => c.Period) is not { } last)
                continue;
            if (templates.Find(last.TemplateCode) is not { } template || !template.OpensFor(Occasion.PayRun))
                continue;
            // A template that cannot be worked out any more is told where it is changed, and to the user who begins the checklist by hand.
            if (RunChecklists.Make(templates, template, next, actor.Today).Answer is not { } checklist)
                continue;
            db.RunChecklists.Add(checklist);
            act.Note(actor.Author("payCheck").Change(BeginRunChecklist.Action, checklist.Id, RunName.Of(checklist)));
            begun++;
        }
        if (begun > 0)
            await act.CommitAsync(cancellation);
        return begun;
    }
}

public sealed record BeginNextRunChecklistsRequest;
