using Fid.Acts;
using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.PayRuns;

/// <summary>Everybody whose pay begins, changes or ends in a run: what it comes to, what stands against it, and who found it right.</summary>
internal static class PayCheckEndpoints
{
    public static void MapPayCheck(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/pay-check", Show).WhoMay(Actions.See, Things.Pay).ProducesProblem(404);
        app.MapGet("/api/pay-check/{group}/{period}/{employment:guid}", Working).WhoMay(Actions.See, Things.Pay).ProducesProblem(404);
        app.MapPost("/api/pay-check", Check)
            .WhoMay(Actions.Edit, Things.Pay)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(StatusCodes.Status412PreconditionFailed);
    }

    /// <summary>A run of a pay group, and how many are to be checked in the next one of each other.</summary>
    /// <param name="group">The code of the pay group; the first that has somebody to check where left out.</param>
    /// <param name="on">A day of the run's period; of the run whose cut-off comes next where left out.</param>
    private static async Task<Results<Ok<PayCheckResponse>, ProblemHttpResult>> Show(
        string? group,
        LocalDateParameter? on,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var pay = await PayReading.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var runs = pay
            .Groups.Values.OrderBy(g => g.NameIn(ReaderLanguage.Code), StringComparer.Ordinal)
            .Select(g => on is { } day && g.Code == group ? CheckedRun.On(pay, g, day.Date) : CheckedRun.Next(pay, g, actor.Today))
            .OfType<CheckedRun>()
            .ToList();
        if (group is not null && !runs.Exists(r => r.Group.Code == group))
            return Problems.NotFound();
        var lines = (await PayRunLines.LoadAsync(db, reader, pay, actor.Today, runs, cancellation)).ToLookup(l => l.Run.Group.Code);
        var names = await ListNames.EntriesAsync(db, cancellation, reader.SeesNames);
        var shown = runs.Find(r => r.Group.Code == group) ?? runs.Find(r => lines[r.Group.Code].Any(l => !l.IsChecked)) ?? runs.FirstOrDefault();
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        PayRunLine[] ofShown = shown is null ? [] : [.. lines[shown.Group.Code]];
        return TypedResults.Ok(
            new PayCheckResponse(
                [
                    .. runs.Select(r => new PayCheckGroup(
                        r.Group.Code,
                        r.Group.NameIn(ReaderLanguage.Code),
                        lines[r.Group.Code].Count(l => !l.IsChecked),
                        lines[r.Group.Code].Count(l => l.IsStopped)
                    )),
                ],
                shown?.Group.Code,
                PaidPeriod.Of(shown?.Run),
                PaidPeriod.Of(shown?.Last),
                PaidPeriod.Of(shown is null ? null : pay.Terms(shown.Group).Periods(shown.Run.End.PlusDays(1), shown.Run.End.PlusDays(1)).Answer?[0]),
                [.. ofShown.Select(l => PayCheckLine.Of(l, reader, names))],
                PayCheckTotals.Of(ofShown, reader, names),
                await UngroupedAsync(db, reader, cancellation),
                shown is null ? null : await RunChecklistEndpoints.OfAsync(db, pay, shown, actor, names, templates, cancellation),
                RunChecklistEndpoints.Offered(templates)
            )
        );
    }

    /// <summary>How what a run pays somebody is worked out, line by line.</summary>
    /// <param name="period">A day of the run's period.</param>
    private static async Task<Results<Ok<PayCheckWorking>, ProblemHttpResult>> Working(
        string group,
        LocalDateParameter period,
        Guid employment,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var pay = await PayReading.LoadAsync(db, cancellation);
        if (pay.Groups.GetValueOrDefault(group) is not { } entry || CheckedRun.On(pay, entry, period.Date) is not { } run)
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (await PayRunLines.LoadAsync(db, reader, pay, actor.Today, [run], cancellation, [employment]) is not [var line])
            return Problems.NotFound();
        return TypedResults.Ok(
            new PayCheckWorking(
                [.. line.Periods.Select(p => PaidPeriod.Of(p)!)],
                line.Slip is { } slip ? PayslipResponse.Of(slip, pay) : null,
                line.Values.Number("pay_rate"),
                line.Rate is { } typed ? new PayRateTyped(typed.ByName, typed.At, typed.Why) : null
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Check(
        PayCheckRequest request,
        Actor actor,
        CheckPay check,
        CancellationToken cancellation
    ) =>
        (
            await check.DoAsync(
                new CheckPayRequest(
                    request.PayGroup,
                    request.Period,
                    [.. request.People.Select(p => new CheckedPerson(p.EmploymentId, p.Version))],
                    request.Checked
                ),
                actor,
                cancellation
            )
        ).Answer();

    // Newcomers who belong to no run yet.
    private static async Task<UngroupedPerson[]> UngroupedAsync(FidDb db, Reader reader, CancellationToken cancellation)
    {
        if (!reader.SeesPay())
            return [];
        var found = await reader
            .Readable(db.CurrentRecords.AsNoTracking())
            .Where(r => r.Missing.Contains("pay_group"))
            .Where(r => db.Hires.Any(h => h.EmploymentId == r.EmploymentId && h.Occasion == Occasion.Arrival && h.Closed == null))
            .Join(
                db.Employments,
                r => r.EmploymentId,
                e => e.Id,
                (record, employment) =>
                    new
                    {
                        record,
                        employment.Number,
                        employment.Start,
                    }
            )
            .OrderBy(f => f.Start)
            .ThenBy(f => f.Number)
            .ToListAsync(cancellation);
        return
        [
            .. found
                .Where(f => reader.SeesPay(reader.On(f.record)))
                .Select(f => new UngroupedPerson(f.record.EmploymentId, reader.NameOf(f.record, f.Number), f.Start)),
        ];
    }
}
