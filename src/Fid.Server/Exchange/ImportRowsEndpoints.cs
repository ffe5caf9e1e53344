using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Exchange;

/// <summary>The rows of an import, with what each would do; cells can be mended in place.</summary>
internal static class ImportRowsEndpoints
{
    private const int PageSize = 200;

    public static void MapImportRows(this IEndpointRouteBuilder imports)
    {
        imports.MapGet("/{id:guid}/rows", Page).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(400).ProducesProblem(404);
        imports.MapPut("/{id:guid}/cells", Mend).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<ImportRowPage>, ProblemHttpResult>> Page(
        Guid id,
        string? only,
        int? after,
        [FromQuery] int[]? also,
        Actor actor,
        FidDb db,
        ImportTargets targets,
        SheetSeals seals,
        CancellationToken cancellation
    )
    {
        if (await ImportInHand.FindAsync(id, actor, db, cancellation) is not { } run)
            return Problems.NotFound();
        if (run.SealedKey is null)
            return TypedResults.Ok(new ImportRowPage([], null));
        if (also?.Length > PageSize)
            return Problems.Invalid(new Problem("/also", "too-long", $"Name at most {PageSize} rows."));
        using var seal = seals.Of(run);
        var kept = also ?? [];
        var outcome = Enum.TryParse<RowOutcome>(only, ignoreCase: true, out var wanted) ? (short)wanted : -1;
        var rows = await db
            .Database.SqlQuery<StoredRow>(
                $"""
                select no, cells, outcome, before::text as before, code, name, name_de, values::text as values, problems from import_rows
                where run_id = {id} and generation = {run.Generation} and no > {after
                    ?? 0} and cells is not null and ({outcome} < 0 or outcome = {outcome} or no = any({kept}))
                order by no limit {PageSize + 1}
                """
            )
            .ToListAsync(cancellation);
        var target = await targets.OfAsync(run, cancellation);
        var suggestions = rows.Any(r => r.Problems is not null) ? await target.SuggestionsAsync(cancellation) : null;
        return TypedResults.Ok(
            new ImportRowPage(
                [.. rows.Take(PageSize).Select(r => Describe(r, seal, run, target, suggestions))],
                rows.Count > PageSize ? rows[PageSize - 1].No : null
            )
        );
    }

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Mend(
        Guid id,
        MendRequest request,
        Actor actor,
        FidDb db,
        MendCells mend,
        CancellationToken cancellation
    ) =>
        await ImportsEndpoints.AnswerAsync(
            await mend.DoAsync(new MendCellsRequest(id, request.Row, request.Column, request.Text, request.AllLike), actor, cancellation),
            id,
            db,
            cancellation
        );

    private static ImportRowResponse Describe(StoredRow row, SheetSeal seal, ImportRun run, ImportTarget target, CellSuggestions? suggestions)
    {
        var (cells, problems) = (seal.OpenCells(row.Cells), seal.OpenProblems(row.Problems));
        var outcome = (RowOutcome)row.Outcome;
        return new ImportRowResponse(
            row.No,
            cells,
            outcome,
            [
                .. problems.Select(p =>
                {
                    var at = Array.IndexOf(run.Columns, p.Column);
                    return new RowProblem(
                        at < 0 ? null : at,
                        p.Column,
                        p.Code,
                        p.Message,
                        at < 0 ? null : suggestions?.For(p, at < cells.Length ? cells[at] : ""),
                        p.From
                    );
                }),
            ],
            outcome == RowOutcome.Changed && row.Before is not null
                ?
                [
                    .. target
                        .Differences(row.Before, new RowContent(row.Code!, row.Name!, row.NameDe, row.Values!))
                        .Select(d => new CellChange(Array.IndexOf(run.Columns, d.Column) is var at and >= 0 ? at : null, d.Column, d.Before, d.After)),
                ]
                : []
        );
    }

    private sealed record StoredRow(
        int No,
        byte[] Cells,
        short Outcome,
        string? Before,
        string? Code,
        string? Name,
        string? NameDe,
        string? Values,
        byte[]? Problems
    );
}

/// <summary>A cell to change.</summary>
/// <param name="Row">The row's number.</param>
/// <param name="Column">The place of the column, from 0.</param>
/// <param name="AllLike">Whether every row whose cell in this column says the same is changed too.</param>
public sealed record MendRequest(int Row, int Column, string Text, bool AllLike);

/// <summary>Rows of an import.</summary>
/// <param name="Next">What to ask after for the rest; null at the end.</param>
public sealed record ImportRowPage(ImportRowResponse[] Rows, int? Next);

/// <summary>A row of a sheet and what it would do.</summary>
/// <param name="Changes">For one that changes an entry: what was there, and what would be.</param>
public sealed record ImportRowResponse(int Number, string[] Cells, RowOutcome Outcome, RowProblem[] Problems, CellChange[] Changes);

/// <summary>What is wrong in a row.</summary>
/// <param name="At">The place of the cell, from 0; null where the sheet has no such column.</param>
/// <param name="Suggestion">What was probably meant; null where nothing comes near.</param>
/// <param name="Follows">What is wrong elsewhere that this only follows from; null where it is wrong by itself.</param>
public sealed record RowProblem(int? At, string Column, string Code, string Detail, string? Suggestion, EntryCause? Follows);

public sealed record CellChange(int? At, string Column, string Before, string After);
