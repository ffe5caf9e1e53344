using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>Begins the checklist of a pay run from a template. The runs of the pay group that follow begin with the same by themselves.</summary>
public sealed class BeginRunChecklist(FidDb db)
{
    public async Task<ActResult> DoAsync(BeginRunChecklistRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Pay))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RunChecklistsAsync(db, cancellation);
        var pay = await PayReading.LoadAsync(db, cancellation);
        if (pay.Groups.GetValueOrDefault(request.PayGroup) is not { } group || CheckedRun.On(pay, group, request.Period) is not { } run)
            return Refusal.NotFound;
        if (await db.RunChecklists.AnyAsync(c => c.PayGroup == request.PayGroup && c.Period == run.Run.Start, cancellation))
            return Refusal.Conflict("under-way", "This run has its checklist already.");
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        if (templates.Find(request.Template) is not { } template || !template.OpensFor(Occasion.PayRun))
            return Refusal.Invalid("/template", "unknown-template", "Choose a template.");
        var made = RunChecklists.Make(templates, template, run, actor.Today);
        if (made.Answer is not { } checklist)
            return Refusal.Invalid([.. made.Problems.Select(p => p with { Path = "/template" })]);
        db.RunChecklists.Add(checklist);
        act.Note(actor.Author("payCheck").Change(Action, checklist.Id, RunName.Of(checklist)));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>As the trail names it.</summary>
    public const string Action = "payRun.begun";
}

/// <param name="Period">A day of the run's period.</param>
/// <param name="Template">The code of a template for pay runs.</param>
public sealed record BeginRunChecklistRequest(string PayGroup, LocalDate Period, string Template);
