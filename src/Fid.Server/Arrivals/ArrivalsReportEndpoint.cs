using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Acts.Plans;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Exchange;
using Fid.Server.Hires;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Arrivals;

/// <summary>Arrivals to take along: who comes in a week, as a PDF to print, and all of them as a workbook.</summary>
internal static class ArrivalsReportEndpoint
{
    public static void MapArrivalsReport(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/arrivals/week.pdf", Week)
            .WhoMay(Actions.See, Things.Hire)
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400)
            .ProducesProblem(429)
            .ProducesProblem(503);
        app.MapGet("/api/arrivals/sheet.xlsx", Sheet).WhoMay(Actions.See, Things.Hire);
    }

    /// <summary>Who comes in the week of a day, Monday to Sunday: today's, where no day is said.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Week(
        LocalDateParameter? on,
        OccasionParameter? occasion,
        Actor actor,
        FidDb db,
        OpenTaskCache tasks,
        PdfWriter pdf,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var day = on?.Date ?? actor.Today;
        if (!ValueCheck.IsSensible(day))
            return Problems.Invalid(new Problem("/on", "bad-date", "Enter a date from 1900 to 2199."));
        var monday = day.PlusDays(1 - (int)day.DayOfWeek);
        var arrivals = await ArrivalsEndpoint.ReadAsync(occasion?.Occasion ?? Occasion.Arrival, actor, db, tasks, cancellation);
        var firm = await db.Firms.Select(f => f.Name).SingleAsync(cancellation);
        if (await pdf.WriteAsync(ArrivalsReport.Html(arrivals, monday, firm), cancellation) is not { } made)
            return PdfWriter.NotMade();
        // Shown rather than saved: it is printed from there.
        http.Response.Headers.ContentDisposition = $"inline; filename=\"arrivals-{monday:uuuu-MM-dd}.pdf\"";
        return TypedResults.File(made, "application/pdf");
    }

    private static async Task<FileContentHttpResult> Sheet(
        OccasionParameter? occasion,
        Actor actor,
        FidDb db,
        OpenTaskCache tasks,
        CancellationToken cancellation
    )
    {
        var arrivals = await ArrivalsEndpoint.ReadAsync(occasion?.Occasion ?? Occasion.Arrival, actor, db, tasks, cancellation);
        var german = ReaderLanguage.IsGerman;
        var title = ArrivalsReport.Title(arrivals.Occasion, german);
        return Workbook.File(
            title,
            title,
            [.. ArrivalsReport.Columns(german).Select((name, i) => new SheetColumn(name, "", [], Wide: i == ArrivalsReport.WideColumn))],
            arrivals.Hires.Select(r => ArrivalsReport.Cells(r, german))
        );
    }
}
