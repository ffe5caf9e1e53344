using Fid.Acts;
using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.PayRuns;

/// <summary>The checklist of a pay run: begun, its tasks settled, taken away.</summary>
internal static class RunChecklistEndpoints
{
    public static void MapRunChecklists(this IEndpointRouteBuilder app)
    {
        Route(app.MapPost("/api/pay-check/checklists", Begin).WhoMay(Actions.Edit, Things.Pay));
        Route(app.MapDelete("/api/pay-check/checklists/{id:guid}", TakeAway).WhoMay(Actions.Edit, Things.Pay));
        // The owner of a task may not see pay at all.
        Route(app.MapPost("/api/pay-check/checklists/{id:guid}/tasks/{key}", Settle).WhoMay(Access.SignedIn));
    }

    private static void Route(RouteHandlerBuilder route) =>
        route.ProducesProblem(400).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);

    /// <summary>The checklist of a run; null where none is begun.</summary>
    public static async Task<RunChecklistResponse?> OfAsync(
        FidDb db,
        PayReading pay,
        CheckedRun run,
        Actor actor,
        ListNames names,
        TemplateSet templates,
        CancellationToken cancellation
    )
    {
        var found = await db
            .RunChecklists.AsNoTracking()
            .Include(c => c.Tasks)
            .Where(c => c.PayGroup == run.Group.Code && c.Period == run.Run.Start)
            .ToListAsync(cancellation);
        if (await RunChecklists.PlanAsync(db, pay, actor.Today, found, cancellation) is not [var planned])
            return null;
        return RunChecklistResponse.Of(planned, await ShowingAsync(db, actor, names, cancellation), templates.Find(planned.Checklist.TemplateCode)?.Name);
    }

    /// <summary>The templates that the checklist of a run can be begun from.</summary>
    public static RunTemplate[] Offered(TemplateSet templates) => [.. templates.OpeningFor(Occasion.PayRun).Select(t => new RunTemplate(t.Code, t.Name))];

    /// <summary>The tasks of pay runs that are somebody's own and still to be done, those due first first.</summary>
    public static async Task<OwnRunTask[]> OwnAsync(FidDb db, Actor actor, ListNames names, CancellationToken cancellation)
    {
        var owners = actor.Tasks.Named;
        var checklists = await db
            .RunChecklists.AsNoTracking()
            .Include(c => c.Tasks)
            .Where(c => c.Tasks.Any(t => owners.Contains(t.Owner) && t.Done == null && t.SkippedWhy == null))
            .OrderBy(c => c.Period)
            .ThenBy(c => c.PayGroup)
            .ToListAsync(cancellation);
        if (checklists.Count == 0)
            return [];
        var pay = await PayReading.LoadAsync(db, cancellation);
        var showing = await ShowingAsync(db, actor, names, cancellation);
        return
        [
            .. (await RunChecklists.PlanAsync(db, pay, actor.Today, checklists, cancellation))
                .SelectMany(run =>
                    run.Tasks.Where(t => t.Planned.Unfinished && actor.Tasks.AreNamedBy(t.Task.Owner)).Select(t => OwnRunTask.Of(run, t, showing, actor))
                )
                .OrderByDescending(t => t.Task.CanStart)
                .ThenBy(t => t.Task.Due ?? t.Task.LatestFinish ?? NodaTime.LocalDate.MaxIsoValue),
        ];
    }

    private static async Task<RunTaskShowing> ShowingAsync(FidDb db, Actor actor, ListNames names, CancellationToken cancellation) =>
        new(actor, names, await db.Stages.AsNoTracking().Where(s => s.Occasion == Occasion.PayRun).ToListAsync(cancellation));

    private static async Task<Results<NoContent, ProblemHttpResult>> Begin(
        BeginChecklistRequest request,
        Actor actor,
        BeginRunChecklist act,
        CancellationToken cancellation
    ) => (await act.DoAsync(new BeginRunChecklistRequest(request.PayGroup, request.Period, request.Template), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeAway(Guid id, Actor actor, TakeAwayRunChecklist act, CancellationToken cancellation) =>
        (await act.DoAsync(new TakeAwayRunChecklistRequest(id), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Settle(
        Guid id,
        string key,
        SettleTaskRequest request,
        Actor actor,
        SettleRunTask act,
        CancellationToken cancellation
    ) => (await act.DoAsync(new SettleRunTaskRequest(id, key, request.To, request.Why), actor, cancellation)).Answer();
}
