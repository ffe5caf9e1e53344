using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Exchange;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Exchange;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>The rows of a field in everybody's records as a sheet, which an import takes back.</summary>
internal static class RowsSheet
{
    public static void MapRowsSheet(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/people/rows/{key}/sheet.xlsx", Give)
            .WhoMay(Actions.Export, Things.People)
            .AsksAgain()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(404);

    /// <summary>A line for each row of everybody who works here or will, with what the user may see of it.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Give(
        string key,
        string? language,
        Actor actor,
        FidDb db,
        ImportTargets targets,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if ((await targets.RowsAsync(actor, cancellation)).FirstOrDefault(r => r.Rows.Key == key) is not { } target)
            return Problems.NotFound();
        var speak = language == "de" ? "de" : "en";
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.Exported, $"people.{key}", cancellation);
        var numbers = await db.Employments.AsNoTracking().Select(e => new { e.Id, e.Number }).ToDictionaryAsync(e => e.Id, e => e.Number, cancellation);
        var byText = numbers.ToDictionary(e => e.Key.ToString(), e => e.Value);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var set = reader.Fields.Set;
        var calendars = set.CountsWorkingDays ? await CalendarSet.LoadAsync(db, cancellation) : null;
        var held = (await ActiveRecords.LoadAsync(db, actor.Today, cancellation, only: await reader.ReadableAsync(db, cancellation))).Records;
        var columns = new List<SheetColumn>
        {
            new(
                speak == "de" ? "Personalnummer" : "Employee number",
                speak == "de" ? "In wessen Akte die Zeile steht." : "In whose record the row stands.",
                []
            ),
        };
        foreach (var column in target.Definition.Columns)
        {
            var field = target.Columns.FirstOrDefault(c => c.Key == column.Key).Field;
            columns.Add(
                new SheetColumn(
                    column.Label.In(speak),
                    field is null ? column.Note.In(speak)
                        : target.MayEdit(field) ? ""
                        : speak == "de" ? "Nur zum Lesen."
                        : "To read, not to change.",
                    field is { } own && target.MayEdit(own) ? await Workbook.ChoicesAsync(db, own, speak, cancellation) : [],
                    field?.Type == FieldType.LongText
                )
            );
        }
        var title = target.Definition.Label.In(speak);
        return Workbook.File(
            title,
            title,
            columns,
            held.OrderBy(r => numbers[r.Key].Length).ThenBy(r => numbers[r.Key], StringComparer.Ordinal).SelectMany(Lines)
        );

        IEnumerable<IReadOnlyList<string>> Lines(KeyValuePair<Guid, ActiveRecord> record)
        {
            var rows = record
                .Value.Values.Keys.Select(FieldAddress.Read)
                .Where(a => a.Whole == key && a.Row is not null)
                .Select(a => a.Row!)
                .Distinct()
                .ToList();
            if (rows.Count == 0)
                return [];
            // As the user sees the record: rows that are not shown for somebody are not in the sheet either.
            var seen = PeopleSheet.Seen(set, record.Value, reader.Everybody, calendars);
            return seen.Shown.Contains(key)
                ? rows.Order(StringComparer.Ordinal)
                    .Select(row => (Row: row, Cells: target.Columns.Select(c => Cell(seen, c.Key, row)).ToList()))
                    .Where(line => line.Cells.Exists(c => c.Length > 0))
                    .Select(line => (IReadOnlyList<string>)[numbers[record.Key], line.Row, .. line.Cells])
                : [];
        }

        string Cell(EvaluatedRecord seen, string column, string row) =>
            seen.Values.TryGetValue(FieldAddress.Cell(key, column, row).ToString(), out var value) ? FieldCell.Write(value, byText.GetValueOrDefault) : "";
    }
}
