using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Exchange;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Exchange;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Everybody's records as a sheet, which an import takes back.</summary>
internal static class PeopleSheet
{
    public static void MapPeopleSheet(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/people/sheet.xlsx", Give).WhoMay(Actions.Export, Things.People).AsksAgain().RequireRateLimiting(RateLimits.Costly);

    /// <summary>A row for everybody who works here or will, or did on a day, with what the user may see of each: fields that are
    /// not shown for somebody stay empty, and so do sealed ones for everybody.</summary>
    /// <param name="empty">To open hires: no rows, and the fields that can be entered for one, with a column for the role template.</param>
    private static async Task<FileContentHttpResult> Give(
        string? language,
        LocalDateParameter? on,
        bool? empty,
        Actor actor,
        FidDb db,
        ImportTargets targets,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var speak = language == "de" ? "de" : "en";
        if (empty == true)
            return await ForHiresAsync(speak, actor, db, targets, cancellation);
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await SecurityTrail.NoteAsync(db, actor, http, SecurityTrail.Exported, "people", cancellation);
        var today = actor.Today;
        var people = await targets.PeopleAsync(actor, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var set = reader.Fields.Set;
        var calendars = set.CountsWorkingDays ? await CalendarSet.LoadAsync(db, cancellation) : null;
        var numbers = await db
            .Employments.AsNoTracking()
            .Select(e => new
            {
                e.Id,
                e.Number,
                e.Start,
                e.End,
            })
            .ToDictionaryAsync(e => e.Id, cancellation);
        var byText = numbers.Values.ToDictionary(e => e.Id.ToString(), e => e.Number);
        var held = (
            await ActiveRecords.LoadAsync(db, today, cancellation, on?.Date, former: on is not null, only: await reader.ReadableAsync(db, cancellation))
        ).Records.Where(r => on is not { } day || (numbers[r.Key].Start <= day.Date && (numbers[r.Key].End is not { } end || end >= day.Date)));

        var columns = new List<SheetColumn> { NumberColumn(speak) };
        foreach (var field in people.Fields)
            columns.Add(await ColumnAsync(db, field, reader.MayEdit(field.Key), speak, cancellation));
        return Workbook.File(
            speak == "de" ? "Personen" : "People",
            speak == "de" ? "Personen" : "People",
            columns,
            held.OrderBy(r => numbers[r.Key].Number.Length).ThenBy(r => numbers[r.Key].Number, StringComparer.Ordinal).Select(Row)
        );

        IReadOnlyList<string> Row(KeyValuePair<Guid, ActiveRecord> record)
        {
            var seen = Seen(set, record.Value, reader.Everybody, calendars);
            var shown = seen.Shown.ToHashSet(StringComparer.Ordinal);
            return
            [
                numbers[record.Key].Number,
                .. people.Fields.Select(f =>
                    shown.Contains(f.Key) && seen.Values.TryGetValue(f.Key, out var value) ? FieldCell.Write(value, byText.GetValueOrDefault) : ""
                ),
            ];
        }
    }

    /// <summary>What somebody sees of a record as it is stored, computed fields with it.</summary>
    internal static EvaluatedRecord Seen(FieldSet set, ActiveRecord record, FieldRights rights, CalendarSet? calendars) =>
        RecordEvaluation.Of(
            set,
            new RecordQuestion(record.Values, set.Keys, [], rights, null, record.AsOf, RecordQuestion.NoLists, calendars?.OfRecord(record.Values))
        );

    /// <summary>The column by which a row's person is known when the sheet is brought in.</summary>
    internal static SheetColumn NumberColumn(string language) =>
        new(
            language == "de" ? "Personalnummer" : "Employee number",
            language == "de" ? "Daran wird die Person erkannt. Bitte nicht ändern." : "By this the person is known again. Leave it as it is.",
            []
        );

    private static async Task<FileContentHttpResult> ForHiresAsync(
        string language,
        Actor actor,
        FidDb db,
        ImportTargets targets,
        CancellationToken cancellation
    )
    {
        var people = await targets.PeopleAsync(actor, cancellation);
        var template = people.Definition.Find(PeopleTarget.Template)!;
        var opening = (await TemplateSet.LoadAsync(db, cancellation)).Opening.Select(t => t.Name).Order(StringComparer.Ordinal).ToArray();
        var columns = new List<SheetColumn> { new(template.Label.In(language), template.Note.In(language), opening) };
        foreach (var field in people.Fields.Where(f => f.Key == StartCorrection.Field || people.MayEdit(f)))
            columns.Add(await ColumnAsync(db, field, mayEdit: true, language, cancellation));
        var title = language == "de" ? "Einstellungen" : "New hires";
        return Workbook.File(title, title, columns, []);
    }

    private static async Task<SheetColumn> ColumnAsync(FidDb db, FieldDefinition field, bool mayEdit, string language, CancellationToken cancellation)
    {
        // A spreadsheet lets one pick one, not several.
        var choices = mayEdit && field.Type != FieldType.Choices ? await Workbook.ChoicesAsync(db, field, language, cancellation) : [];
        var note =
            mayEdit
                ? field.Type switch
                {
                    FieldType.Person => language == "de" ? "Die Personalnummer." : "The employee number.",
                    FieldType.Choices => language == "de" ? "Mehrere mit Semikolon trennen." : "Put semicolons between several.",
                    FieldType.Date => language == "de" ? "Als 2027-03-22 oder 22.3.2027." : "As 2027-03-22 or 22/3/2027.",
                    _ => "",
                }
            : language == "de" ? "Nur zum Lesen."
            : "To read, not to change.";
        return new SheetColumn(field.Label(language), note, choices, field.Type == FieldType.LongText);
    }
}
