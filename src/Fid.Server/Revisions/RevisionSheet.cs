using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Acts.People;
using Fid.Acts.Revisions;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Exchange;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Revisions;

/// <summary>A revision as a sheet, in the columns in which people's records are brought in: changed by hand, it comes back through Exchange,
/// from the same day on, and can be undone there.</summary>
internal static class RevisionSheet
{
    public static void MapRevisionSheet(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/pay-revisions/sheet.xlsx", Give)
            .WhoMay(Actions.Revise, Things.Pay)
            .AsksAgain()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400);

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Give(
        string? grade,
        string? job,
        string? site,
        string? payGroup,
        decimal percent,
        decimal? atLeastHourly,
        bool? upToBand,
        LocalDateParameter from,
        string? language,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (!actor.May(Actions.Export, Things.People))
            return Problems.Forbidden();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var question = new RevisionQuestion(
            new RevisedGroup(grade, job, site, payGroup),
            new RevisionRule(percent, atLeastHourly ?? 0, upToBand ?? false),
            from.Date
        );
        var read = await RevisionReading.LoadAsync(db, reader, question, actor.Today, cancellation);
        if (read.Answer is not { } preview)
            return Problems.Invalid(read.Problems);
        await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.Exported, "pay", cancellation);
        var speak = language == "de" ? "de" : "en";
        var title = speak == "de" ? "Lohnrunde" : "Pay revision";
        string[] fields = [.. new[] { "given_name", "family_name" }.Where(reader.Sees), "pay_rate"];
        SheetColumn[] columns = [PeopleSheet.NumberColumn(speak), .. fields.Select(f => new SheetColumn(reader.Fields.Set.Find(f)!.Label(speak), "", []))];
        return Workbook.File($"{title} {from.Date:uuuu-MM-dd}", title, columns, preview.People.Zip(preview.Pay.People, Row));

        IReadOnlyList<string> Row(RevisedPerson person, RevisedPay pay) =>
            [
                person.Employment.Number,
                .. fields.Select(f =>
                    f switch
                    {
                        "given_name" => person.Record.GivenName ?? "",
                        "family_name" => person.Record.FamilyName ?? "",
                        _ => FieldCell.Write(System.Text.Json.JsonSerializer.SerializeToElement(pay.After), _ => null),
                    }
                ),
            ];
    }
}
