using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Server.Exchange;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Fid.Server.Fields;

/// <summary>The gap of a field as a sheet to fill, and a filled one read back into the grid, where it is looked at and saved.</summary>
internal static class GapSheet
{
    private const int MostRows = 20_000;

    private static readonly CellStyle Dates = new(DateOrder.DayMonthYear, '.');

    // What the columns are called in the sheets Fid gives out, in either language.
    private static readonly string[] Numbers = ["Number", "Nummer"];

    public static void MapGapSheet(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/fields/{key}/gap.xlsx", Give)
            .WhoMay(Actions.Edit, Things.Fields)
            .AsksAgain()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(404);
        app.MapPost("/api/fields/{key}/gap", Read)
            .WhoMay(Actions.Edit, Things.Fields)
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400)
            .ProducesProblem(404);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Give(
        string key,
        string? department,
        string? site,
        string? language,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (await CoverageEndpoints.LackingAsync(key, department, site, actor, db, cancellation) is not { } gap)
            return Problems.NotFound();
        await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.Exported, $"gap {key}", cancellation);
        var speak = language == "de" ? "de" : "en";
        var choices = await Workbook.ChoicesAsync(db, gap.Field, speak, cancellation);
        var label = gap.Field.Label(speak);
        return Workbook.File(
            label,
            label,
            [
                new SheetColumn(
                    speak == "de" ? Numbers[1] : Numbers[0],
                    speak == "de" ? "Daran wird die Person erkannt. Bitte nicht ändern." : "By this the person is known again. Leave it as it is.",
                    []
                ),
                new SheetColumn("Name", "", []),
                new SheetColumn(label, "", choices, Wide: true),
            ],
            gap.People.Select(p => (IReadOnlyList<string>)[p.Number, p.Name, ""])
        );
    }

    /// <summary>What a filled sheet says for whom. Nothing is saved: the grid shows it, and each line is saved there.</summary>
    private static async Task<Results<Ok<ReadGap>, ProblemHttpResult>> Read(
        string key,
        HttpRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.Fields.Set.Find(key) is not { } field || !reader.Sees(key))
            return Problems.NotFound();
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancellation);
        List<string[]> rows;
        try
        {
            rows = [.. SheetFile.Rows(() => new MemoryStream(body.ToArray()), cancellation).Take(MostRows + 1)];
        }
        catch (SheetException e)
        {
            return Problems.Invalid(new Problem("", "unreadable", e.Message));
        }
        var header = rows.FirstOrDefault() ?? [];
        var (number, value) = (At(header, Numbers), At(header, [.. field.Labels.Values, key]));
        if (number < 0 || value < 0)
            return Problems.Invalid(
                new Problem(
                    "",
                    "missing-columns",
                    $"The sheet needs a column “{Numbers[0]}” and a column “{field.Label("en")}”. Get a sheet here, and fill that."
                )
            );
        var people = await reader
            .Readable(db.CurrentRecords)
            .Join(db.Employments, r => r.EmploymentId, e => e.Id, (_, e) => new { e.Number, e.Id })
            .ToDictionaryAsync(e => e.Number, e => e.Id, cancellation);
        var (filled, unknown) = (new List<GapValue>(), new List<string>());
        foreach (var row in rows.Skip(1))
        {
            var (who, typed) = (Cell(row, number), Cell(row, value));
            if (typed.Length == 0)
                continue;
            if (people.TryGetValue(who, out var id))
                filled.Add(new GapValue(id, Typed(field, typed)));
            else
                unknown.Add(who);
        }
        return TypedResults.Ok(new ReadGap([.. filled], [.. unknown.Take(20)]));
    }

    // As one would type it into the field: dates as ISO 8601, numbers with a point, yes and no in English.
    private static string Typed(FieldDefinition field, string cell) =>
        field.Type switch
        {
            FieldType.Date => CellText.Date(cell, Dates) is { } date ? LocalDatePattern.Iso.Format(date) : cell,
            FieldType.YesNo => CellText.YesNo(cell) is { } yes
                ? yes
                    ? "yes"
                    : "no"
                : cell,
            FieldType.Choice when field.Options is { } options => NamedChoice.Find([.. options.Select(o => new NamedChoice(o.Value, o.Labels.Values))], cell)
                ?? cell,
            _ => cell,
        };

    private static int At(string[] header, IReadOnlyCollection<string> names) =>
        Array.FindIndex(header, h => names.Contains(h.Trim(), StringComparer.OrdinalIgnoreCase));

    private static string Cell(string[] row, int at) => at < row.Length ? SheetWriter.AsWritten(row[at].Trim()) : "";
}

/// <summary>What a sheet says.</summary>
/// <param name="Values">For whom it says what.</param>
/// <param name="Unknown">Numbers that nobody has, the first twenty.</param>
public sealed record ReadGap(GapValue[] Values, string[] Unknown);

/// <param name="Typed">As one would type it into the field.</param>
public sealed record GapValue(Guid EmploymentId, string Typed);
