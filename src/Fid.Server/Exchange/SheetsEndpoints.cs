using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Exchange;

/// <summary>Workbooks to download: a list's own sheet, to fill or with what is there, and the rows an import could not take.</summary>
internal static class SheetsEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/lists/{list}/sheet.xlsx", Sheet).WhoMay(Actions.See, Things.List).ProducesProblem(404);
        app.MapGet("/api/imports/{id:guid}/rest.xlsx", Rest).WhoMay(Actions.Edit, Things.Sheet).AsksAgain().ProducesProblem(404);
    }

    /// <summary>The sheet of a list: its columns with notes and choices, and example rows or, on request, its entries.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Sheet(
        string list,
        string? language,
        bool? filled,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (ShippedLists.Find(list) is not { } definition)
            return Problems.NotFound();
        var speak = language == "de" ? "de" : "en";
        var entries = (await db.ListEntries.AsNoTracking().Where(e => e.List == list && !e.Retired).OrderBy(e => e.Code).ToListAsync(cancellation)).ConvertAll(
            e => e.Content()
        );
        var columns = new List<SheetColumn>
        {
            new(
                speak == "de" ? "Code" : "Code",
                speak == "de"
                    ? "Eindeutig in der Liste; Großschreibung ist egal. Zeilen, die mit EXAMPLE- beginnen, werden übergangen."
                    : "Unique in the list; capitals do not matter. Rows that begin with EXAMPLE- are passed over.",
                []
            ),
            new("Name", speak == "de" ? "Wie es heißt." : "What it is called.", []),
            new(speak == "de" ? "Name auf Deutsch" : "Name in German", speak == "de" ? "Nur wenn er anders ist." : "Only where it differs.", []),
        };
        foreach (var column in definition.Columns)
            columns.Add(await ColumnAsync(db, column, speak, cancellation));
        var rows = filled == true ? entries.Select(e => Row(definition, e)) : Examples(definition, entries, speak);
        return Workbook.File(definition.Label.In(speak), definition.Label.In(speak), columns, rows);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Rest(
        Guid id,
        string? language,
        Actor actor,
        FidDb db,
        SheetSeals seals,
        CancellationToken cancellation
    )
    {
        if (await ImportInHand.FindAsync(id, actor, db, cancellation) is not { SealedKey: not null } run)
            return Problems.NotFound();
        using var seal = seals.Of(run);
        var wrong = (short)RowOutcome.Wrong;
        var rows = await db
            .Database.SqlQuery<WrongRow>(
                $"""
                select cells, problems from import_rows where run_id = {id} and generation = {run.Generation} and outcome = {wrong}
                  and cells is not null order by no
                """
            )
            .ToListAsync(cancellation);
        return Workbook.File(
            $"{Path.GetFileNameWithoutExtension(run.FileName)} – {(language == "de" ? "Rest" : "rest")}",
            run.FileName,
            [.. run.Headers.Select(h => new SheetColumn(h, "", [])), new SheetColumn(language == "de" ? "Warum" : "Why", "", [], Wide: true)],
            rows.Select(r => (Cells: seal.OpenCells(r.Cells), Why: string.Join(' ', seal.OpenProblems(r.Problems).Select(p => $"{p.Column}: {p.Message}"))))
                .Select(r => (IReadOnlyList<string>)[.. r.Cells, .. Enumerable.Repeat("", Math.Max(0, run.Headers.Length - r.Cells.Length)), r.Why])
        );
    }

    private static async Task<SheetColumn> ColumnAsync(FidDb db, ListColumn column, string language, CancellationToken cancellation)
    {
        IReadOnlyList<string> choices = column.Type switch
        {
            ColumnType.Choice => [.. column.Options!.Select(o => o.Label.In(language))],
            ColumnType.YesNo => Workbook.YesNo(language),
            ColumnType.Entry => await Workbook.CodesAsync(db, column.List!, cancellation),
            _ => [],
        };
        return new SheetColumn(
            column.Label.In(language),
            column.Note.In(language) + (column.Required ? (language == "de" ? " Wird gebraucht." : " Needed.") : ""),
            choices,
            column.Type is ColumnType.Holidays or ColumnType.Bands or ColumnType.Shifts or ColumnType.Requirements or ColumnType.Options or ColumnType.LongText
        );
    }

    private static IReadOnlyList<string> Row(ListDefinition list, EntryContent entry) =>
        [entry.Code, entry.Name, entry.NameDe ?? "", .. list.Columns.Select(c => ColumnValue.ToText(c, entry.Values.GetValueOrDefault(c.Key)))];

    // The list's own first entries show best how one is filled; an empty list shows its columns' usual values.
    private static IEnumerable<IReadOnlyList<string>> Examples(ListDefinition list, List<EntryContent> entries, string language)
    {
        if (entries.Count == 0)
            return
            [
                [$"{RowChecker.Example}1", language == "de" ? "Beispiel" : "Example", "", .. list.Columns.Select(c => c.Default ?? "")],
            ];
        return entries.Take(2).Select((e, i) => (IReadOnlyList<string>)[$"{RowChecker.Example}{i + 1}", .. Row(list, e).Skip(1)]);
    }

    private sealed record WrongRow(byte[] Cells, byte[]? Problems);
}
