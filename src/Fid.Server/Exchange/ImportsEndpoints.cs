using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Exchange;

/// <summary>Filling lists from spreadsheets: upload, match, look at what every row would do, commit, undo.</summary>
internal static class ImportsEndpoints
{
    private const int MostShown = 200;

    public static void MapImports(this IEndpointRouteBuilder app)
    {
        var imports = app.MapGroup("/api/imports");
        imports.MapGet("/targets", Targets).WhoMay(Actions.Edit, Things.Sheet);
        imports.MapGet("", Index).WhoMay(Actions.Edit, Things.Sheet);
        imports
            .MapPost("", Upload)
            .WhoMay(Actions.Edit, Things.Sheet)
            .RequireRateLimiting(RateLimits.Costly)
            .WithMetadata(new LargeBody(SheetFile.LargestFile))
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(413);
        imports.MapGet("/{id:guid}", Show).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(404);
        imports.MapPut("/{id:guid}/matching", Match).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        imports.MapImportRows();
        imports.MapPost("/{id:guid}/commit", Commit).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(404).ProducesProblem(409);
        imports.MapPost("/{id:guid}/undo", Undo).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(404).ProducesProblem(409);
        imports.MapDelete("/{id:guid}", Drop).WhoMay(Actions.Edit, Things.Sheet).ProducesProblem(404).ProducesProblem(409);
        app.MapSheets();
    }

    private static async Task<Ok<ImportResponse[]>> Index(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            (
                await db
                    .ImportRuns.AsNoTracking()
                    .Where(r => r.State != ImportState.Dropped)
                    .OrderByDescending(r => r.At)
                    .Take(MostShown)
                    .ToListAsync(cancellation)
            )
                .Select(ImportResponse.Of)
                .ToArray()
        );

    /// <summary>What sheets can go into.</summary>
    private static async Task<Ok<ImportTargetResponse[]>> Targets(Actor actor, ImportTargets targets, CancellationToken cancellation) =>
        TypedResults.Ok(
            ShippedLists
                .All.Prepend((await targets.PeopleAsync(actor, cancellation)).Definition)
                .Concat((await targets.RowsAsync(actor, cancellation)).Select(r => r.Definition))
                .Select(l => new ImportTargetResponse(l.Key, l.Label, l.About, l.HasNames, [.. l.Columns.Select(ColumnResponse.Of)]))
                .ToArray()
        );

    /// <summary>Takes a file, or cells that were pasted, as the body. Everything else happens in the background.</summary>
    private static async Task<Results<Created<ImportResponse>, ProblemHttpResult>> Upload(
        string list,
        string? fileName,
        HttpRequest request,
        Actor actor,
        UploadSheet upload,
        CancellationToken cancellation
    )
    {
        if (request.ContentLength > SheetFile.LargestFile)
            return Problems.Of(UploadSheet.TooLarge);
        try
        {
            if (!(await upload.DoAsync(new UploadSheetRequest(list, fileName, request.Body), actor, cancellation)).IsDone(out var run, out var refusal))
                return Problems.Of(refusal);
            return TypedResults.Created($"/api/imports/{run.Id}", ImportResponse.Of(run));
        }
        catch (BadHttpRequestException e) when (e.StatusCode == StatusCodes.Status413PayloadTooLarge)
        {
            return Problems.Of(UploadSheet.TooLarge);
        }
    }

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Show(Guid id, Actor actor, FidDb db, CancellationToken cancellation) =>
        await ImportInHand.FindAsync(id, actor, db, cancellation) is { } run ? TypedResults.Ok(ImportResponse.Of(run)) : Problems.NotFound();

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Match(
        Guid id,
        MatchingRequest request,
        Actor actor,
        FidDb db,
        MatchColumns match,
        CancellationToken cancellation
    ) =>
        await AnswerAsync(
            await match.DoAsync(
                new MatchColumnsRequest(id, request.Columns, request.Dates, request.Decimal, request.EmptyClears, request.HoldsFrom),
                actor,
                cancellation
            ),
            id,
            db,
            cancellation
        );

    /// <summary>Puts all rows, or only the good ones, into the list, in one transaction.</summary>
    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Commit(
        Guid id,
        CommitRequest request,
        Actor actor,
        FidDb db,
        AskForImport ask,
        CancellationToken cancellation
    ) => await AnswerAsync(await ask.DoAsync(new AskForImportRequest(id, request.OnlyGood), actor, cancellation), id, db, cancellation);

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Undo(
        Guid id,
        Actor actor,
        FidDb db,
        AskForImportUndone ask,
        CancellationToken cancellation
    ) => await AnswerAsync(await ask.DoAsync(new AskForImportUndoneRequest(id), actor, cancellation), id, db, cancellation);

    private static async Task<Results<NoContent, ProblemHttpResult>> Drop(Guid id, Actor actor, DropImport drop, CancellationToken cancellation) =>
        (await drop.DoAsync(new DropImportRequest(id), actor, cancellation)).Answer();

    /// <summary>What an import is after a step of it; the rest of the step follows in the background.</summary>
    internal static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> AnswerAsync(ActResult step, Guid id, FidDb db, CancellationToken cancellation)
    {
        if (step.Refusal is { } refusal)
            return Problems.Of(refusal);
        return TypedResults.Ok(ImportResponse.Of(await db.ImportRuns.AsNoTracking().SingleAsync(r => r.Id == id, cancellation)));
    }
}

/// <summary>How a sheet is to be understood.</summary>
/// <param name="Columns">For each column of the sheet the key of the list's column; empty to leave it out.</param>
/// <param name="Decimal">The decimal mark: "." or ",".</param>
/// <param name="EmptyClears">Whether an empty cell empties what is there.</param>
/// <param name="HoldsFrom">For people, the day from which what the rows say holds; null where they correct what is there.</param>
public sealed record MatchingRequest(string[] Columns, DateOrder? Dates, string Decimal, bool EmptyClears, LocalDate? HoldsFrom = null);

/// <summary>What a sheet can go into.</summary>
/// <param name="HasNames">Whether its rows have names beside their codes.</param>
public sealed record ImportTargetResponse(string Key, Label Label, Label About, bool HasNames, ColumnResponse[] Columns);

public sealed record CommitRequest(bool OnlyGood);

/// <summary>An import.</summary>
/// <param name="List">The key of what it goes into.</param>
/// <param name="Done">Rows worked through in what is under way, of <paramref name="Rows"/>.</param>
/// <param name="Failure">What went wrong: a sentence, or "meanwhile", "fault", "used:…" or "changed:…" with codes.</param>
/// <param name="Columns">For each header the key of the list's column; empty for one that is left out.</param>
/// <param name="AskDates">Whether dates can be read both ways and somebody has to say which.</param>
/// <param name="Generation">Grows with every check of the rows; 0 before the first.</param>
public sealed record ImportResponse(
    Guid Id,
    string List,
    string FileName,
    long Size,
    Instant At,
    string By,
    ImportState State,
    string? Failure,
    int Rows,
    int Done,
    int New,
    int Changed,
    int Same,
    int Wrong,
    int Ignored,
    string[] Headers,
    string[] Columns,
    string[] MatchedBy,
    DateOrder? Dates,
    bool AskDates,
    string Decimal,
    bool EmptyClears,
    LocalDate? HoldsFrom,
    bool OnlyGood,
    Instant? CommittedAt,
    int Generation
)
{
    internal static ImportResponse Of(ImportRun r) =>
        new(
            r.Id,
            r.List,
            r.FileName,
            r.Size,
            r.At,
            r.ByName,
            r.State,
            r.Failure,
            r.Rows,
            r.Done,
            r.New,
            r.Changed,
            r.Same,
            r.Wrong,
            r.Ignored,
            r.Headers,
            r.Columns,
            r.MatchedBy,
            r.Dates is null ? null : Enum.Parse<DateOrder>(r.Dates),
            r.AskDates,
            r.Decimal,
            r.EmptyClears,
            r.HoldsFrom,
            r.OnlyGood,
            r.CommittedAt,
            r.Generation
        );
}
