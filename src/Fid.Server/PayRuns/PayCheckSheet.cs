using System.Globalization;
using System.Text;
using CsvHelper;
using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Exchange;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.PayRuns;

/// <summary>The lines of a run as a sheet: the same people, amounts and findings as the place shows.</summary>
internal static class PayCheckSheet
{
    public static void MapPayCheckSheet(this IEndpointRouteBuilder app)
    {
        foreach (var kind in (string[])["xlsx", "csv"])
            app.MapGet($"/api/pay-check/{{group}}/{{period}}/sheet.{kind}", Give)
                .WhoMay(Actions.Export, Things.People)
                .AsksAgain()
                .RequireRateLimiting(RateLimits.Costly)
                .ProducesProblem(404);
    }

    /// <param name="period">A day of the run's period.</param>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Give(
        string group,
        LocalDateParameter period,
        string? language,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (!actor.May(Actions.See, Things.Pay))
            return Problems.Forbidden();
        var pay = await PayReading.LoadAsync(db, cancellation);
        if (pay.Groups.GetValueOrDefault(group) is not { } entry || CheckedRun.On(pay, entry, period.Date) is not { } run)
            return Problems.NotFound();
        await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.Exported, "pay", cancellation);
        var words = language == "de" ? PayCheckWords.German : PayCheckWords.English;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.EntriesAsync(db, cancellation, reader.SeesNames);
        var lines = await PayRunLines.LoadAsync(db, reader, pay, actor.Today, [run], cancellation);
        IReadOnlyList<string>[] rows = [.. lines.Select(l => Row(PayCheckLine.Of(l, reader, names), words))];
        var name = $"{words.Title} {entry.Code} {run.Run.Start:uuuu-MM-dd}";
        return http.Request.Path.Value!.EndsWith(".csv", StringComparison.Ordinal)
            ? TypedResults.File(Csv(words.Columns, rows), "text/csv; charset=utf-8", $"{name}.csv")
            : Workbook.File(name, words.Title, [.. words.Columns.Select(c => new SheetColumn(c, "", []))], rows);
    }

    private static string[] Row(PayCheckLine line, PayCheckWords words) =>
        [
            line.Number,
            line.Name,
            string.Join("; ", line.News.Select(words.Of)),
            string.Join("; ", line.Findings.Select(words.Of)),
            Amount(line.LastGross),
            Amount(line.Amounts?.Gross),
            Amount(line.Difference),
            Amount(line.Amounts?.Deductions),
            Amount(line.Amounts?.Net),
            Amount(line.Amounts?.EmployerCost),
            line.Department ?? "",
            line.CostCentre ?? "",
            line.Check is { Holds: true } check ? check.ByName : "",
        ];

    private static string Amount(decimal? amount) => amount?.ToString("0.00", CultureInfo.InvariantCulture) ?? "";

    // RFC 4180; with the mark by which spreadsheets know UTF-8.
    private static byte[] Csv(IReadOnlyList<string> columns, IReadOnlyList<IReadOnlyList<string>> rows)
    {
        using var stream = new MemoryStream();
        using (var writer = new CsvWriter(new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true)), CultureInfo.InvariantCulture))
            foreach (var row in rows.Prepend(columns))
            {
                foreach (var cell in row)
                    writer.WriteField(SheetWriter.Harmless(cell));
                writer.NextRecord();
            }
        return stream.ToArray();
    }
}
